'use client'
import { useState } from 'react'
import type { ReactNode } from 'react'
import { percent } from '@/core/maths/percent'
import { inferMissing } from '@/core/parts/missing/infer'
import type { Inference } from '@/core/parts/missing/infer'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { SelectField, TextField } from '@/ui/Field'
import { noPad, padWords, readPads, typedOf } from './typed-pads'
import type { PadErrors, TypedPad, TypedPads } from './typed-pads'

/** The two pads of a part that is not there, and what they say of it. */
export function WhatWasIt({ of }: { of: string | null }) {
  const kept = useJob((j) => (of === null ? undefined : j.state.parts.pads[of]))
  const append = useJob((j) => j.append)
  const [typed, setTyped] = useState<TypedPads>(() => typedOf(kept))
  if (of === null)
    return (
      <p className="text-soft">
        Note a part that is missing first. Then its two pads are read here, board unplugged, and say what it
        was.
      </p>
    )
  const { part, errors } = readPads(typed)
  const change = (pad: 'a' | 'b', to: Partial<TypedPad>) =>
    setTyped((t) => ({ ...t, [pad]: { ...t[pad], ...to } }))
  const same = JSON.stringify(typed) === JSON.stringify(typedOf(kept))
  return (
    <div className="grid gap-x-6 gap-y-3 pb-4 @2xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <form
        className="flex flex-col gap-2"
        onSubmit={(e) => {
          e.preventDefault()
          if (part) append('pads', { ref: of, ...part })
        }}
      >
        <h2 className="text-[1rem]!">
          <span className="num">{of}</span> off, board unplugged
        </h2>
        <div className="grid grid-cols-2 gap-x-3 gap-y-1.5">
          <PadColumn name="A" pad={typed.a} errors={errors.a} onChange={(to) => change('a', to)} />
          <PadColumn name="B" pad={typed.b} errors={errors.b} onChange={(to) => change('b', to)} />
        </div>
        <div className="grid grid-cols-3 gap-3">
          <TextField
            label="Pads apart, mm"
            value={typed.padsMm}
            onChange={(e) => setTyped({ ...typed, padsMm: e.target.value })}
            error={errors.padsMm}
            placeholder="1.0"
            className="num"
          />
          <TextField
            label="Supply, V"
            value={typed.supplyV}
            onChange={(e) => setTyped({ ...typed, supplyV: e.target.value })}
            error={errors.supplyV}
            placeholder="3.3"
            className="num"
          />
          <TextField
            label="Its twins"
            value={typed.twins}
            onChange={(e) => setTyped({ ...typed, twins: e.target.value })}
            error={errors.twins}
            placeholder="R213 33, R215 34"
            className="num"
          />
        </div>
        <Button type="submit" look="first" className="self-start" disabled={!part || same}>
          Keep these readings
        </Button>
      </form>
      {part ? (
        <Says of={of} inference={inferMissing(part)} />
      ) : (
        <p role="status" className="text-soft">
          A reading is not clear yet.
        </p>
      )}
    </div>
  )
}

function PadColumn({
  name,
  pad,
  errors,
  onChange,
}: {
  name: 'A' | 'B'
  pad: TypedPad
  errors: PadErrors
  onChange: (to: Partial<TypedPad>) => void
}) {
  const field = (key: Exclude<keyof TypedPad, 'pins'>, label: string, placeholder: string) => (
    <TextField
      label={label}
      aria-label={`Pad ${name}: ${label}`}
      value={pad[key]}
      onChange={(e) => onChange({ [key]: e.target.value })}
      error={errors[key]}
      placeholder={placeholder}
      className="num"
    />
  )
  return (
    <fieldset className="flex min-w-0 flex-col gap-1.5">
      <legend className="font-semibold">Pad {name}</legend>
      {field('ground', 'To ground, Ω', '120k or open')}
      {field('diode', 'Diode drop to ground, V', '0.52')}
      <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-2">
        {field('rail', 'Supply', '3v3')}
        {field('railOhm', 'to it, Ω', '90k')}
      </div>
      {field('net', 'Net', 'SPI_MISO')}
      {[...pad.pins, noPad].map((pin, i) => (
        <div key={i} className="grid grid-cols-[minmax(0,5fr)_minmax(0,6fr)_minmax(0,4fr)] gap-1.5">
          {(['pin', 'does', 'ohms'] as const).map((key) => {
            const set = (value: string) => {
              const pins = [...pad.pins, noPad].map((p, k) => (k === i ? { ...p, [key]: value } : p))
              onChange({ pins: pins.filter((p) => p.pin.trim() !== '' || p.ohms.trim() !== '') })
            }
            return key === 'does' ? (
              <SelectField
                key={key}
                label="does"
                aria-label={`Pad ${name}, pin ${i + 1}: what it does`}
                value={pin.does}
                onChange={(e) => set(e.target.value)}
              >
                {padWords.map((word) => (
                  <option key={word}>{word}</option>
                ))}
              </SelectField>
            ) : (
              <TextField
                key={key}
                label={key === 'pin' ? 'Beeps to pin' : 'Ω'}
                aria-label={`Pad ${name}, pin ${i + 1}: ${key === 'pin' ? 'which' : 'ohms to it'}`}
                value={pin[key]}
                onChange={(e) => set(e.target.value)}
                error={errors[`pin ${i}`] && key === 'ohms' ? errors[`pin ${i}`] : undefined}
                placeholder={key === 'pin' ? 'U7.5' : '0.4'}
                className="num"
              />
            )
          })}
        </div>
      ))}
    </fieldset>
  )
}

/** What the readings come to: what it did, its value or why there is none, what to read next. */
function Says({ of, inference }: { of: string; inference: Inference }) {
  const { roles, value, refused, range, sizes, power, expects, next, kind } = inference
  const [top] = roles
  return (
    <section aria-label={`What ${of} was`} aria-live="polite" className="leading-snug">
      <ol className="mb-2">
        {roles.slice(0, 4).map(({ role, odds }) => (
          <li key={role} className="grid grid-cols-[7rem_1fr_3.6rem] items-center gap-2 py-0.5">
            <span className={role === top!.role ? 'font-semibold' : 'text-soft'}>{role}</span>
            <span className="h-2.5 border border-line" aria-hidden="true">
              <span className="block h-full bg-slate" style={{ width: `${100 * odds}%` }} />
            </span>
            <span className="num text-right">{percent(odds)}</span>
          </li>
        ))}
      </ol>
      {value ? (
        <>
          <p className="text-[1.05rem]">
            Fit <strong className="num">{value.say}</strong>
            {sizes[0] && `, ${sizes.join(' or ')}`}
            {value.by === 'twin'
              ? ', as its twins.'
              : ': an educated guess, on a low-current data line only.'}
          </p>
          <Row what="usual range">{range.say}</Row>
          {power && <Row what="flows at most">{power.say}</Row>}
          {expects && <Row what="then reads">{expects.say}</Row>}
        </>
      ) : (
        <>
          <p className="text-[1.05rem]">
            <strong>No value is given:</strong> {refused!.because}.
          </p>
          <Row what="usual range">
            {range.say} ({kind}); not a value to fit
          </Row>
          {sizes[0] && <Row what="size">{sizes.join(' or ')}</Row>}
          <h3 className="mt-2 text-[0.94rem] font-semibold">Ways on</h3>
          <ul className="list-disc pl-5">
            {refused!.ways.map((way) => (
              <li key={way}>{way}</li>
            ))}
          </ul>
        </>
      )}
      {next.length > 0 && (
        <>
          <h3 className="mt-2 text-[0.94rem] font-semibold">Readings that would tell most</h3>
          <ul>
            {next.map(({ pad, what, tells }) => (
              <li key={`${pad} ${what}`}>
                pad {pad.toUpperCase()}: {what} <span className="num text-soft">{tells.toFixed(2)} bit</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

const Row = ({ what, children }: { what: string; children: ReactNode }) => (
  <p className="grid grid-cols-[7rem_1fr] gap-2 border-b border-line py-1">
    <span className="text-soft">{what}</span>
    <span>{children}</span>
  </p>
)
