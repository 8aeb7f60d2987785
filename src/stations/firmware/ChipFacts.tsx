'use client'
import { useState } from 'react'
import { tooMuch } from '@/core/firmware/clip'
import { readHexBytes } from '@/core/firmware/chip/jedec-id'
import { substitute } from '@/core/firmware/chip/substitute'
import { chipAsRead, wantedOf } from '@/core/firmware/chip/taken-chips'
import type { Sfdp } from '@/core/firmware/chip/sfdp'
import { identityNow, lastNoted } from '@/core/firmware/slice'
import { readNumber } from '@/core/tables/read-number'
import { useJob } from '@/job/JobProvider'
import { Choice } from '@/ui/Choice'
import { TicketLine } from '@/ui/TicketLine'

/** What is known of the version, the chip and the programmer on it; each is noted where it stands. */
export function ChipFacts() {
  const firmware = useJob((j) => j.state.firmware)
  const chipVolts = lastNoted(firmware, 'chipVolts')
  const programmerVolts = lastNoted(firmware, 'programmerVolts')
  const append = useJob((j) => j.append)
  const over = tooMuch(firmware)
  const identity = identityNow(firmware)
  return (
    <section id="chip" className="ticket pt-2.5 pb-4">
      <h2>Version and chip</h2>
      <Fact
        label="Version seen"
        known={lastNoted(firmware, 'version')}
        placeholder="as the screen shows it"
        onKeep={(text) => (append('firmware', { version: text }), null)}
      />
      <Fact
        label="Chip marking"
        known={lastNoted(firmware, 'chip')}
        placeholder="LSN-16V"
        onKeep={(text) => (append('firmware', { chip: text.toUpperCase() }), null)}
      />
      <Fact
        label="ID"
        known={identity?.say}
        placeholder="7F 7F 33 40 15"
        onKeep={(text) => {
          const bytes = readHexBytes(text)
          if (!bytes || bytes.length > 32) return `“${text}” are no bytes of an ID; like 7F 7F 33 40 15`
          append('firmware', {
            chipId: [...bytes]
              .map((b) => b.toString(16).padStart(2, '0'))
              .join('')
              .toUpperCase(),
          })
          return null
        }}
      />
      {identity?.sfdp && <Itself sfdp={identity.sfdp} />}
      <TakenChips />
      {identity?.findings.map((text) => (
        <p key={text} className="text-[0.9rem] text-ember">
          {text}
        </p>
      ))}
      <Volts label="Chip works at" known={chipVolts} onKeep={(v) => append('firmware', { chipVolts: v })} />
      <Volts
        label="Programmer"
        known={programmerVolts}
        onKeep={(v) => append('firmware', { programmerVolts: v })}
      />
      {over && (
        <p role="alert" className="mt-2 font-semibold text-ember">
          {over}
        </p>
      )}
      <div id="clip" className="mt-2">
        <Choice
          label="Clip"
          value={lastNoted(firmware, 'clipOn') ? 'on' : 'off'}
          options={['off', 'on']}
          words={{ on: 'on the chip', off: 'off' }}
          onChange={(v) => append('firmware', { clipOn: v === 'on' })}
        />
      </div>
    </section>
  )
}

function Fact({
  label,
  known,
  placeholder,
  onKeep,
}: {
  label: string
  known: string | undefined
  placeholder: string
  onKeep: (text: string) => string | null
}) {
  const [text, setText] = useState<string | null>(null)
  const [fault, setFault] = useState<string>()
  function keep() {
    const typed = (text ?? '').trim()
    if (typed === '' || typed === known) return setText(null)
    const wrong = onKeep(typed)
    setFault(wrong ?? undefined)
    if (!wrong) setText(null)
  }
  return (
    <TicketLine label={label} error={fault}>
      <input
        className="num"
        value={text ?? known ?? ''}
        placeholder={placeholder}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />
    </TicketLine>
  )
}

function Volts({
  label,
  known,
  onKeep,
}: {
  label: string
  known: number | undefined
  onKeep: (volts: number) => void
}) {
  return (
    <Fact
      label={label}
      known={known === undefined ? undefined : `${known} V`}
      placeholder="1.8 or 3.3"
      onKeep={(text) => {
        const volts = readNumber(text)
        if (volts === null || volts < 0.5 || volts > 12)
          return `“${text}” is no voltage of a chip; 1.8 or 3.3`
        onKeep(volts)
        return null
      }}
    />
  )
}

const verdicts = {
  fits: 'It fits.',
  'fits with change': 'It fits with a change.',
  refuse: 'Refuse it.',
  'cannot tell': 'It cannot be told whether it fits.',
} as const

/** Which chips the board is known to take, and whether the one that was read is one, point by point. */
function TakenChips() {
  const table = useJob((j) => j.setting.references.chips)
  const firmware = useJob((j) => j.state.firmware)
  const wanted = table && wantedOf(table)
  if (!wanted) return null
  const read = chipAsRead(firmware)
  const judged = read && substitute(wanted, read)
  const order = { refuse: 0, 'with change': 1, 'not known': 2, fits: 3 } as const
  return (
    <section aria-label="Whether the chip fits" className="pt-1 text-[0.9rem]">
      <p className="text-soft">
        This board is known to take {table.chips.map((c) => c.name).join(', ')}
        {wanted.checksId && ', and looks at the ID'}.
      </p>
      {judged && (
        <>
          <p className={`font-semibold ${judged.verdict === 'refuse' ? 'text-ember' : ''}`}>
            {verdicts[judged.verdict]}
          </p>
          <ul>
            {[...judged.points]
              .sort((a, b) => order[a.is] - order[b.is])
              .map((p) => (
                <li
                  key={p.point}
                  className={p.is === 'refuse' ? 'text-ember' : p.is === 'fits' ? '' : 'text-soft'}
                >
                  <span aria-hidden="true">{p.is === 'fits' ? '✓' : p.is === 'refuse' ? '✗' : '·'}</span>{' '}
                  <b className="font-semibold">{p.point}</b> {p.say}
                  {p.is === 'with change' && ' (with change)'}
                </li>
              ))}
          </ul>
        </>
      )}
    </section>
  )
}

/** What the chip says of itself, in a few words. */
function Itself({ sfdp }: { sfdp: Sfdp }) {
  const words = [
    sfdp.bytes === null ? 'a size that cannot be' : `${sfdp.bytes / 1_048_576} MiB`,
    `addresses of ${sfdp.addressing}`,
    `erases ${sfdp.erases.map((e) => `${e.bytes / 1024} KiB`).join(', ') || 'not known'}`,
    sfdp.quadEnable === null ? '' : `four lines by ${sfdp.quadEnable}`,
  ]
  return (
    <p className="pt-1 text-[0.9rem] text-soft">It says of itself: {words.filter(Boolean).join('; ')}.</p>
  )
}
