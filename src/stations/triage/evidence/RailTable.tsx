'use client'
import type { OwnRail, Rail } from '@/core/board/rail'
import { sayOhms } from '@/core/maths/units'
import { railsOf, sayRail } from '@/core/board/rail'

import { useRef, useState } from 'react'
import { limitsOf } from '@/core/board/rail-limits'
import { readNumber } from '@/core/tables/read-number'
import { judgeRails, ownRailsOf } from '@/core/triage/instruments/rail-table'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { Simulated } from '@/stations/triage/simulated/Simulated'

const stateWords = { short: 'shorted', low: 'low', good: 'good', high: 'high, part open' } as const
const stateTone = {
  short: 'font-semibold text-ember',
  low: 'font-semibold text-brass',
  good: 'text-verd',
  high: 'font-semibold text-brass',
} as const
const voltWords = {
  missing: 'no volts',
  low: 'volts low',
  good: 'volts right',
  high: 'volts too high',
} as const

const toldWords = { short: 'shorted', low: 'low', good: 'good, no figure' } as const

/** The rails judged by a good board, or by the usual limits. */
function useJudged() {
  const ohms = useJob((j) => j.state.board.rails)
  const volts = useJob((j) => j.state.board.volts)
  const reference = useJob((j) => j.setting.references.rails)
  const own = useJob((j) => j.state.board.ownRails)
  const read = <T,>(of: Readonly<Partial<Record<Rail, T>>>) =>
    Object.entries(of).filter((e): e is [Rail, T] => e[1] !== undefined)
  const measured = Object.fromEntries(read(volts).map(([rail, v]) => [rail, v.volts]))
  return judgeRails({ ohms: Object.fromEntries(read(ohms)), volts: measured }, reference, own)
}

/** Ohms to ground, rail by rail; Enter keeps a reading and goes to the next. */
export function RailTable() {
  const told = useJob((j) => j.state.board.told.rails)
  const readings = useJob((j) => j.state.board.rails)
  const measured = useJob((j) => j.state.board.volts)
  const reference = useJob((j) => j.setting.references.rails)
  const judged = useJudged()
  const own = useJob((j) => j.state.board.ownRails)
  const listed = railsOf(own)
  const missed = ownRailsOf(reference).filter((r) => !own.some((o) => o.rail === r.rail))
  const known = useJob((j) => j.state.board.power.cpu)
  const ticketCpu = useJob((j) => j.state.intake.ticket.cpu)
  const append = useJob((j) => j.append)
  const [unknown, setUnknown] = useState<'in' | 'out'>('out')
  const where = known ?? unknown
  /** Where the CPU is noted already, saying the other notes that it was taken out or put in. */
  const setWhere = (cpu: 'in' | 'out') => {
    if (known === null) setUnknown(cpu)
    else if (cpu !== known)
      append('fitted', { cpu: cpu === 'out' ? null : ticketCpu.trim() || 'a CPU, not named' })
  }
  const [typed, setTyped] = useState<Partial<Record<Rail, string>>>({})
  const [faults, setFaults] = useState<Partial<Record<Rail, string>>>({})
  const inputs = useRef<Partial<Record<Rail, HTMLInputElement | null>>>({})

  const textOf = (rail: Rail) => typed[rail]?.trim() ?? ''
  const faulty = (text: string) => text !== '' && !((readNumber(text) ?? -1) >= 0)

  function keep(rail: Rail) {
    const text = textOf(rail)
    const wrong = faulty(text) ? `“${text}” is not a resistance; like 1.8 or 4.7k` : undefined
    setFaults((all) => ({ ...all, [rail]: wrong }))
    if (wrong || text === '') return
    append('rail', { rail, ohms: readNumber(text)!, cpu: where })
    setTyped((all) => ({ ...all, [rail]: '' }))
  }

  /** Leaving the field keeps its reading, so Enter has only to leave it. */
  function next(rail: Rail) {
    if (faulty(textOf(rail))) return keep(rail)
    const following = listed[listed.indexOf(rail) + 1]
    if (following) inputs.current[following]?.focus()
    else inputs.current[rail]?.blur()
  }

  return (
    <section id="rails" className="pb-4">
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="text-[0.98rem]!">Resistance to ground, unplugged</h2>
        <Choice
          label="CPU while measuring"
          hideLabel
          value={where}
          options={['out', 'in']}
          words={{ out: 'CPU out', in: 'CPU in' }}
          onChange={setWhere}
        />
      </div>
      <table className="w-full">
        <thead className="sr-only">
          <tr>
            <th>Rail</th>
            <th>New reading, Ω</th>
            <th>Reading</th>
            <th>On the scale</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          {listed.map((rail) => {
            const reading = readings[rail]
            const line = judged.find((r) => r.rail === rail)
            const state = line?.ohms?.state
            const volts = line?.volts
            const word = told.findLast((t) => t.rail === rail && t.seq > (reading?.seq ?? 0))?.is
            return (
              <tr key={rail}>
                <td className="w-24 leading-tight">{sayRail(rail)}</td>
                <td className="w-20 pr-2!">
                  <input
                    ref={(el) => void (inputs.current[rail] = el)}
                    value={typed[rail] ?? ''}
                    onChange={(e) => setTyped({ ...typed, [rail]: e.target.value })}
                    onBlur={() => keep(rail)}
                    onKeyDown={(e) => e.key === 'Enter' && next(rail)}
                    aria-label={`${sayRail(rail)}, ohms to ground`}
                    aria-invalid={faults[rail] ? true : undefined}
                    inputMode="decimal"
                    className="num w-[4.6rem] py-0.5!"
                    data-first-field={reading ? undefined : true}
                    placeholder="Ω"
                  />
                </td>
                <td className="w-28 pr-2! text-right whitespace-nowrap">
                  {reading && (
                    <span className="num text-[1.06rem]">
                      {sayOhms(reading.ohms)}{' '}
                      <span className="font-sans text-[0.85rem] text-soft">{reading.cpu}</span>
                    </span>
                  )}
                </td>
                <td>{reading && <OhmScale rail={rail} ohms={reading.ohms} cpu={reading.cpu} own={own} />}</td>
                <td className={`w-28 pr-0! leading-tight ${state ? stateTone[state] : 'text-soft'}`}>
                  {faults[rail] ? (
                    <span role="alert" className="font-semibold text-ember">
                      {faults[rail]}
                    </span>
                  ) : word ? (
                    <span className={word === 'good' ? 'text-ink' : 'font-semibold text-ember'}>
                      said to be {toldWords[word]}
                    </span>
                  ) : state ? (
                    stateWords[state]
                  ) : (
                    'not yet'
                  )}
                  {line?.ohms?.expected != null && state !== 'good' && (
                    <span className="block text-[0.85rem] font-normal text-soft">
                      good: {line.ohms.expected} Ω
                    </span>
                  )}
                  {volts && (
                    <span
                      className={`block text-[0.85rem] ${volts.state === 'good' ? 'font-normal text-soft' : 'font-semibold text-ember'}`}
                    >
                      <span className="num">{measured[rail]!.volts} V</span>{' '}
                      {volts.state === 'good' ? '' : voltWords[volts.state]}
                    </span>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {missed.length > 0 && (
        <p className="mt-2 flex items-baseline justify-between gap-4 border-l-[3px] border-brass pl-3">
          <span>
            Boards of this model also have {missed.map((r) => sayRail(r.rail)).join(', ')}: measured before
            power, like the rest.
          </span>
          <Button
            className="px-2.5! py-0.5!"
            onClick={() => append('ticket', { set: { rails: [...own, ...missed] } })}
          >
            Take them over
          </Button>
        </p>
      )}
      <p className="mt-1 text-[0.88rem] text-soft">
        {reference
          ? `Judged by a good board${reference.name ? `, ${reference.name}` : ''}; a short by the usual limits stays a short.`
          : 'Judged by the usual limits; the library takes the rails of a good board of this model.'}
      </p>
      <Simulated
        asks={[
          [
            own.length === 0 ? 'Measure all seven' : `Measure all ${listed.length}`,
            { ask: 'ohms', cpu: where },
          ],
          ['Measure the volts', { ask: 'volts' }],
        ]}
      />
    </section>
  )
}

const DECADES = [-1, 4] as const
const at = (ohms: number) => {
  const decade = Math.log10(Math.max(ohms, 10 ** DECADES[0]))
  return Math.min(100, Math.max(0, ((decade - DECADES[0]) / (DECADES[1] - DECADES[0])) * 100))
}

/** Where the reading stands between a short and a good rail, by decades. */
function OhmScale({
  rail,
  ohms,
  cpu,
  own,
}: {
  rail: Rail
  ohms: number
  cpu: 'in' | 'out'
  own: readonly OwnRail[]
}) {
  const limits = limitsOf(rail, cpu, own)
  const [short, low] = [at(limits.short), at(limits.low)]
  const here = at(ohms)
  return (
    <svg viewBox="0 0 100 14" preserveAspectRatio="none" className="h-4 w-full" aria-hidden="true">
      <rect x="0" y="9" width={short} height="3" fill="var(--ember)" />
      <rect x={short} y="10" width={low - short} height="1.6" fill="var(--brass)" />
      <rect x={low} y="10.4" width={100 - low} height="0.8" fill="var(--slate)" />
      <rect x={Math.max(0, here - 0.7)} y="1" width="1.4" height="12" fill="var(--ink)" />
    </svg>
  )
}
