'use client'
import { useState } from 'react'
import { chipOff, chipPins, lineIs, refitPoints } from '@/core/firmware/chip/refit'
import type { ChipPin } from '@/core/firmware/chip/refit'
import { readNumber } from '@/core/tables/read-number'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TicketLine } from '@/ui/TicketLine'
import { BackOn } from './BackOn'
import { TakeOff } from './TakeOff'

/** The chip off the board and on again; once it is on, point by point how it stands. */
export function OffAndOn() {
  const firmware = useJob((j) => j.state.firmware)
  const [taking, setTaking] = useState(false)
  const points = refitPoints(firmware)
  const off = chipOff(firmware)
  return (
    <section id="refit" aria-label="The chip off the board and on again" className="pb-4">
      <h2>Off the board and on again</h2>
      {off ? (
        <p className="mt-1 flex flex-wrap items-center gap-2">
          It is off the board.
          <BackOn />
        </p>
      ) : (
        <Button className="mt-1 px-2.5! py-0.5! text-[0.92rem]" onClick={() => setTaking(true)}>
          Take the chip off…
        </Button>
      )}
      {points.length > 0 && (
        <ul className="mt-2">
          {points.map(({ point, is, say }) => (
            <li key={point} className={is === 'no' ? 'text-ember' : is === 'open' ? 'text-soft' : ''}>
              <span aria-hidden="true">{is === 'good' ? '✓' : is === 'no' ? '✗' : '·'}</span>{' '}
              <b className="font-semibold">{point}</b> {say}
            </li>
          ))}
        </ul>
      )}
      {points.some((p) => p.point === 'lines') && <Lines />}
      {taking && <TakeOff byHand={false} onClose={() => setTaking(false)} />}
    </section>
  )
}

/** Ohms from each pin to the far end of its line. */
function Lines() {
  const { moves, refits } = useJob((j) => j.state.firmware)
  const append = useJob((j) => j.append)
  const [typed, setTyped] = useState<Partial<Record<ChipPin, string>>>({})
  const [faults, setFaults] = useState<Partial<Record<ChipPin, string>>>({})
  const since = moves.at(-1)?.seq ?? 0
  const last = (pin: ChipPin) =>
    refits.findLast((r) => r.seq > since && r.lines?.[pin] !== undefined)?.lines?.[pin]
  function keep(pin: ChipPin) {
    const text = (typed[pin] ?? '').trim()
    if (text === '') return
    const isOpen = /^(open|ol|∞|-)$/i.test(text)
    const ohms = isOpen ? null : readNumber(text)
    if (!isOpen && (ohms === null || ohms < 0))
      return setFaults({ ...faults, [pin]: `“${text}” is no reading; ohms, or open` })
    append('refit', { lines: { [pin]: ohms } })
    setFaults({ ...faults, [pin]: undefined })
    setTyped({ ...typed, [pin]: undefined })
  }
  return (
    <div className="ticket mt-2 grid grid-cols-2 gap-x-6">
      {chipPins.map((pin, i) => {
        const ohms = last(pin)
        const shown = ohms === undefined ? '' : ohms === null ? 'open' : `${ohms} Ω`
        return (
          <TicketLine key={pin} label={`${pin} (pin ${i + 1})`} error={faults[pin]}>
            <input
              className={`num ${ohms !== undefined && lineIs(pin, ohms) === 'open' ? 'text-ember' : ''}`}
              value={typed[pin] ?? shown}
              placeholder="Ω or open"
              onChange={(e) => setTyped({ ...typed, [pin]: e.target.value })}
              onBlur={() => keep(pin)}
              onKeyDown={(e) => e.key === 'Enter' && keep(pin)}
            />
          </TicketLine>
        )
      })}
    </div>
  )
}
