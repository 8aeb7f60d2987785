import { padKinds } from '@/core/parts/missing/pad'
import type { PadsByMap } from '@/core/parts/board-map/known-of-part'
import type { MissingPart } from '@/core/parts/missing/infer'
import type { Ohms, PadKind, PadSeen } from '@/core/parts/missing/pad'
import { kindOfRef, readValue, sayValue } from '@/core/parts/value/quantity'
import type { PartKind } from '@/core/parts/value/quantity'

/** What a pin may do, as it is said at the bench. */
export const padWords: readonly (readonly [PadKind, string])[] = padKinds.map((kind) => [
  kind,
  { lane: 'fast lane', control: 'reset, enable', feedback: 'sets V or A' }[kind as string] ?? kind,
])

/** A pin as it is typed. */
export interface TypedPin {
  readonly pin: string
  readonly does: string
  readonly ohms: string
}
export interface TypedPad {
  readonly ground: string
  readonly diode: string
  readonly net: string
  readonly pins: readonly TypedPin[]
}
/** A supply by its name, and the ohms of both pads to it. */
export interface TypedRail {
  readonly name: string
  readonly a: string
  readonly b: string
}
export interface TypedPads {
  readonly a: TypedPad
  readonly b: TypedPad
  readonly rails: readonly TypedRail[]
  readonly padsMm: string
  readonly supplyV: string
  readonly twins: string
}
/** What is wrong, by field. */
export type PadErrors = Readonly<Record<string, string>>
type PlaceErrors = Readonly<Partial<Record<'padsMm' | 'supplyV' | 'twins', string>>>

export const noPin: TypedPin = { pin: '', does: 'data', ohms: '' }
export const noRail: TypedRail = { name: '', a: '', b: '' }

/** What a twin is taken for where its name does not say. */
const kindOf = (ref: string): PartKind => kindOfRef(ref) ?? 'resistor'

const written = (value: Ohms | undefined) => (value === undefined ? '' : String(value))
const typedPad = ({ groundOhm, diodeV, net = '', pins = [] }: PadSeen = {}): TypedPad => ({
  ground: written(groundOhm),
  diode: written(diodeV),
  net,
  pins: pins.map(({ pin, does, ohms }) => ({ pin, does, ohms: written(ohms) })),
})

const twinsText = (twins: readonly { readonly ref: string; readonly value: number }[]) =>
  twins.map((t) => `${t.ref} ${sayValue(kindOf(t.ref), t.value)}`).join(', ')

/** What was kept of a part’s pads, as it would be typed; until then what the board’s map knows, or the net it was noted with. */
export const typedOf = (kept?: MissingPart, net?: string, map?: PadsByMap | null): TypedPads => ({
  a: typedPad(kept?.a ?? (map ? { net: map.a } : net === undefined ? {} : { net })),
  b: typedPad(kept?.b ?? (map ? { net: map.b } : {})),
  rails: [...new Set([kept?.a, kept?.b].flatMap((pad) => Object.keys(pad?.rails ?? {})))].map((name) => ({
    name,
    a: written(kept?.a.rails?.[name]),
    b: written(kept?.b.rails?.[name]),
  })),
  padsMm: written(kept ? kept.padsMm : map?.padsMm),
  supplyV: written(kept?.supplyV),
  twins: twinsText(
    kept
      ? (kept.twins ?? [])
      : (map?.twins ?? []).flatMap(({ ref, value }) => (value === null ? [] : [{ ref, value }])),
  ),
})

/** Whether what was read is what was kept. */
export const isKept = (part: MissingPart, kept: MissingPart | undefined): boolean =>
  kept !== undefined && JSON.stringify(part) === JSON.stringify(readPads(typedOf(kept)).part)

const open = /^(open|ol|o\.l\.|inf)$/i

/** Ohms as they are typed, or that the meter shows nothing. */
const ohmsOf = (text: string): Ohms | null => (open.test(text.trim()) ? 'open' : readValue('resistor', text))

/** Reads what was typed; an error names its field and the mend, and nothing that was typed is lost. */
export function readPads(typed: TypedPads): {
  readonly part: MissingPart | null
  readonly errors: PlaceErrors & { readonly a: PadErrors; readonly b: PadErrors }
} {
  const one = (pad: TypedPad, of: 'a' | 'b') => {
    const errors: Record<string, string> = {}
    const seen: {
      groundOhm?: Ohms
      diodeV?: Ohms
      rails?: Record<string, Ohms>
      net?: string
      pins?: PadSeen['pins']
    } = {}
    const ohms = (text: string, field: string): Ohms | null => {
      const read = ohmsOf(text)
      if (read === null) errors[field] = `“${text.trim()}” are no ohms: 120k, 4.7, or open`
      return read
    }
    if (pad.ground.trim()) {
      const read = ohms(pad.ground, 'ground')
      if (read !== null) seen.groundOhm = read
    }
    if (pad.diode.trim()) {
      const read = open.test(pad.diode.trim())
        ? 'open'
        : readValue('resistor', pad.diode.replace(/\s*v$/i, ''))
      if (read === null || (read !== 'open' && read > 5))
        errors.diode = `“${pad.diode.trim()}” is no drop: 0.52, or open`
      else seen.diodeV = read
    }
    typed.rails.forEach((rail, i) => {
      if (!rail[of].trim()) return
      const read = ohms(rail[of], `rail ${i}`)
      if (rail.name.trim() === '') errors[`rail ${i}`] = 'to which supply?'
      else if (read !== null) seen.rails = { ...seen.rails, [rail.name.trim()]: read }
    })
    if (pad.net.trim()) seen.net = pad.net.trim()
    const pins = pad.pins.flatMap(({ pin, does, ohms: text }, i) => {
      const read = text.trim() === '' ? 0.5 : ohmsOf(text)
      if (pin.trim() === '') errors[`pin ${i}`] = 'which pin?'
      else if (read === null) errors[`pin ${i}`] = 'no ohms'
      else return [{ pin: pin.trim(), does: does as PadKind, ohms: read }]
      return []
    })
    if (pins.length > 0) seen.pins = pins
    return { seen, errors }
  }
  const [a, b] = [one(typed.a, 'a'), one(typed.b, 'b')]
  const errors: { -readonly [K in keyof PlaceErrors]: PlaceErrors[K] } = {}
  const figure = (text: string, field: keyof PlaceErrors, most: number, like: string) => {
    if (text.trim() === '') return undefined
    const read = readValue('resistor', text.replace(/\s*(mm|v)$/i, ''))
    if (read === null || read <= 0 || read > most) {
      errors[field] = `“${text.trim()}”: a figure up to ${most}, like ${like}`
      return undefined
    }
    return read
  }
  const padsMm = figure(typed.padsMm, 'padsMm', 20, '1.0')
  const supplyV = figure(typed.supplyV, 'supplyV', 60, '3.3')
  const twins = typed.twins
    .split(/[,;]/)
    .filter((t) => t.trim() !== '')
    .flatMap((t) => {
      const [, ref, value] = /^\s*(\S+)\s+(.+?)\s*$/.exec(t) ?? []
      const read = value === undefined ? null : readValue(kindOf(ref!), value)
      if (read === null) {
        errors.twins = `“${t.trim()}”: name and value, like R213 33 or C5 100n`
        return []
      }
      return [{ ref: ref!, value: read }]
    })
  const faults = [a.errors, b.errors, errors].some((e) => Object.keys(e).length > 0)
  return {
    part: faults
      ? null
      : {
          a: a.seen,
          b: b.seen,
          ...(padsMm === undefined ? {} : { padsMm }),
          ...(supplyV === undefined ? {} : { supplyV }),
          ...(twins.length > 0 ? { twins } : {}),
        },
    errors: { a: a.errors, b: b.errors, ...errors },
  }
}
