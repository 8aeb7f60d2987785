'use client'
import { useState } from 'react'
import { readNumber } from '@/core/tables/read-number'
import { useJob } from '@/job/JobProvider'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'
import { TicketLine } from '@/ui/TicketLine'
import { When } from '@/ui/When'

/** What is known of the firmware and its chip, and what was done to it, in order. */
export function FirmwareStation() {
  const log = useJob((j) => j.state.firmware.steps)
  const last = <K extends 'version' | 'chip' | 'chipVolts' | 'programmerVolts' | 'clipOn'>(field: K) =>
    log.findLast((f) => f[field] !== undefined)?.[field]
  return (
    <StationSurface station="firmware">
      <div className="grid gap-x-6 lg:h-full lg:min-h-0 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
        <Pane>
          <ChipFacts
            version={last('version')}
            chip={last('chip')}
            chipVolts={last('chipVolts')}
            programmerVolts={last('programmerVolts')}
            clipOn={last('clipOn')}
          />
          <Caution>
            Before a clip goes on: unplugged, coin cell out. Some chips work at 1.8 V; 3.3 V from a programmer
            destroys them. Read twice and keep the backup before anything is erased.
          </Caution>
        </Pane>
        <Pane>
          <StepsTaken />
        </Pane>
      </div>
    </StationSurface>
  )
}

interface Facts {
  readonly version?: string
  readonly chip?: string
  readonly chipVolts?: number
  readonly programmerVolts?: number
  readonly clipOn?: boolean
}

function ChipFacts({ version, chip, chipVolts, programmerVolts, clipOn }: Facts) {
  const append = useJob((j) => j.append)
  const tooHigh =
    chipVolts !== undefined && programmerVolts !== undefined && programmerVolts > chipVolts * 1.1
  return (
    <section id="chip" className="ticket pt-2.5 pb-4">
      <h2>Version and chip</h2>
      <Fact
        label="Version seen"
        known={version}
        placeholder="as the screen shows it"
        onKeep={(text) => (append('firmware', { version: text }), null)}
      />
      <Fact
        label="Chip marking"
        known={chip}
        placeholder="LSN-16V"
        onKeep={(text) => (append('firmware', { chip: text.toUpperCase() }), null)}
      />
      <Volts label="Chip works at" known={chipVolts} onKeep={(v) => append('firmware', { chipVolts: v })} />
      <Volts
        label="Programmer"
        known={programmerVolts}
        onKeep={(v) => append('firmware', { programmerVolts: v })}
      />
      {tooHigh && (
        <p role="alert" className="mt-2 font-semibold text-ember">
          The programmer gives {programmerVolts} V to a {chipVolts} V chip. Put the adapter between before the
          clip goes on.
        </p>
      )}
      <div id="clip" className="mt-2">
        <Choice
          label="Clip"
          value={clipOn ? 'on' : 'off'}
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

function StepsTaken() {
  const log = useJob((j) => j.state.firmware.steps)
  const append = useJob((j) => j.append)
  const [text, setText] = useState('')
  const [fault, setFault] = useState<string>()
  return (
    <section className="pt-2.5 pb-4">
      <h2>Found and done, in order</h2>
      {log.length === 0 && (
        <p className="text-soft">
          Nothing yet. First what is there: the version it shows, the chip’s marking, whether the parts round
          it are all present.
        </p>
      )}
      <ol>
        {log.map((f) => (
          <li
            key={f.seq}
            className="grid grid-cols-[4.6rem_1fr] gap-3 border-b border-dashed border-line py-1.5 leading-snug"
          >
            <span className="pt-0.5 text-[0.88rem] text-soft">
              <When at={f.at} as="time" />
            </span>
            <span>
              {[
                f.version && `version ${f.version} seen`,
                f.chip && `chip ${f.chip}`,
                f.chipVolts && `chip works at ${f.chipVolts} V`,
                f.programmerVolts && `programmer at ${f.programmerVolts} V`,
                f.clipOn !== undefined && `clip ${f.clipOn ? 'on' : 'off'}`,
                f.did,
              ]
                .filter(Boolean)
                .join(', ')}
            </span>
          </li>
        ))}
      </ol>
      <form
        className="mt-3 flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (!text.trim()) return setFault('What was done? Like: read twice, both reads equal, backup kept.')
          append('firmware', { did: text.trim() })
          setText('')
          setFault(undefined)
        }}
      >
        <TextField
          label="What was done"
          value={text}
          onChange={(e) => setText(e.target.value)}
          error={fault}
          placeholder="read twice, both reads equal, backup kept"
        />
        <Button type="submit" look="first" className="self-start">
          Note the step
        </Button>
      </form>
    </section>
  )
}
