'use client'
import type { ReactNode } from 'react'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Cell } from '@/ui/Cell'
import { TextField } from '@/ui/Field'
import { isKept, noPin, noRail, padWords, readPads } from './typed-pads'
import type { TypedPad, TypedPads, TypedPin } from './typed-pads'

const pads = ['a', 'b'] as const
type Pad = (typeof pads)[number]

/** What is read of the two pads of a part that is not there, board unplugged. */
export function PadReadings({
  of,
  typed,
  onType,
}: {
  of: string
  typed: TypedPads
  onType: (typed: TypedPads) => void
}) {
  const kept = useJob((j) => j.state.parts.pads[of])
  const append = useJob((j) => j.append)
  const { part, errors } = readPads(typed)
  const change = (pad: Pad, to: Partial<TypedPad>) => onType({ ...typed, [pad]: { ...typed[pad], ...to } })
  const line = (key: Exclude<keyof TypedPad, 'pins'>, say: string, placeholder: string) => (
    <Line say={say}>
      {pads.map((pad) => (
        <Cell
          key={pad}
          aria-label={`Pad ${pad.toUpperCase()}: ${say}`}
          value={typed[pad][key]}
          onChange={(e) => change(pad, { [key]: e.target.value })}
          placeholder={pad === 'a' ? placeholder : ''}
          error={errors[pad][key]}
        />
      ))}
    </Line>
  )
  const setRail = (i: number, to: Partial<(typeof typed.rails)[number]>) =>
    onType({
      ...typed,
      rails: [...typed.rails, noRail]
        .map((rail, k) => (k === i ? { ...rail, ...to } : rail))
        .filter((rail) => rail.name.trim() || rail.a.trim() || rail.b.trim()),
    })
  return (
    <form
      className="pb-4"
      onSubmit={(e) => {
        e.preventDefault()
        if (part) append('pads', { ref: of, ...part })
      }}
    >
      <div className="grid grid-cols-[6.6rem_minmax(0,1fr)_minmax(0,1fr)] items-start gap-x-2.5 gap-y-1.5">
        <span className="num text-[1.05rem] font-semibold">{of}</span>
        <span className="font-semibold">Pad A</span>
        <span className="font-semibold">Pad B</span>
        {line('ground', 'To ground, Ω', '120k or open')}
        {line('diode', 'Diode drop, V', '0.52, red on ground')}
        {[...typed.rails, noRail].map((rail, i) => (
          <Line
            key={i}
            say={
              <input
                aria-label={`Supply ${i + 1}`}
                className="num w-full"
                value={rail.name}
                placeholder="to 3v3"
                onChange={(e) => setRail(i, { name: e.target.value })}
              />
            }
          >
            {pads.map((pad) => (
              <Cell
                key={pad}
                aria-label={`Pad ${pad.toUpperCase()}: to supply ${i + 1}, Ω`}
                value={rail[pad]}
                onChange={(e) => setRail(i, { [pad]: e.target.value })}
                placeholder={pad === 'a' ? 'Ω to it' : ''}
                error={errors[pad][`rail ${i}`]}
              />
            ))}
          </Line>
        ))}
        {line('net', 'Net', 'SPI_MISO')}
        <Line say="Beeps to pin">
          {pads.map((pad) => (
            <Pins
              key={pad}
              name={pad.toUpperCase()}
              pins={typed[pad].pins}
              errors={errors[pad]}
              onChange={(pins) => change(pad, { pins })}
            />
          ))}
        </Line>
      </div>
      <div className="mt-3 grid grid-cols-3 gap-3">
        {(
          [
            ['padsMm', 'Pads apart, mm', '1.0'],
            ['supplyV', 'Supply, V', '3.3'],
            ['twins', 'Its twins', 'R213 33, R215 34'],
          ] as const
        ).map(([key, label, placeholder]) => (
          <TextField
            key={key}
            label={label}
            value={typed[key]}
            onChange={(e) => onType({ ...typed, [key]: e.target.value })}
            error={errors[key]}
            placeholder={placeholder}
            className="num"
          />
        ))}
      </div>
      <Button type="submit" look="first" className="mt-3" disabled={!part || isKept(part, kept)}>
        Keep these readings
      </Button>
    </form>
  )
}

const Line = ({ say, children }: { say: ReactNode; children: ReactNode }) => (
  <>
    <span className="self-center text-[0.94rem] text-soft">{say}</span>
    {children}
  </>
)

function Pins({
  name,
  pins,
  errors,
  onChange,
}: {
  name: string
  pins: readonly TypedPin[]
  errors: Readonly<Record<string, string>>
  onChange: (pins: readonly TypedPin[]) => void
}) {
  const set = (i: number, to: Partial<TypedPin>) =>
    onChange(
      [...pins, noPin]
        .map((pin, k) => (k === i ? { ...pin, ...to } : pin))
        .filter((pin) => pin.pin.trim() || pin.ohms.trim()),
    )
  return (
    <span className="flex min-w-0 flex-col gap-1.5">
      {[...pins, noPin].map((pin, i) => (
        <span key={i} className="grid grid-cols-[minmax(0,3fr)_minmax(0,4fr)_minmax(0,2.4fr)] gap-1">
          <input
            aria-label={`Pad ${name}, pin ${i + 1}: which`}
            className="num w-full px-1.5!"
            value={pin.pin}
            placeholder="U7.5"
            onChange={(e) => set(i, { pin: e.target.value })}
          />
          <select
            aria-label={`Pad ${name}, pin ${i + 1}: what it does`}
            className="w-full px-1!"
            value={pin.does}
            onChange={(e) => set(i, { does: e.target.value })}
          >
            {padWords.map(([kind, word]) => (
              <option key={kind} value={kind}>
                {word}
              </option>
            ))}
          </select>
          <input
            aria-label={`Pad ${name}, pin ${i + 1}: ohms to it`}
            className="num w-full px-1.5!"
            value={pin.ohms}
            placeholder="Ω"
            onChange={(e) => set(i, { ohms: e.target.value })}
          />
          {errors[`pin ${i}`] && (
            <span role="alert" className="col-span-3 text-[0.88rem] font-semibold text-ember">
              {errors[`pin ${i}`]}
            </span>
          )}
        </span>
      ))}
    </span>
  )
}
