import { sayValue } from '../value/quantity'
import type { PartKind } from '../value/quantity'
import { sizeOf } from '../value/size-code'

export const dielectrics = ['C0G', 'X7R', 'X5R', 'Y5V', 'tantalum', 'polymer', 'electrolytic'] as const
export type Dielectric = (typeof dielectrics)[number]

export const uses = ['decoupling', 'bulk', 'timing', 'pull', 'series', 'bead', 'other'] as const
/** What the part does there, as far as it decides what may stand in for it. */
export type Use = (typeof uses)[number]

/** What is to be replaced. What is not known is left out, and is said as not known. */
export interface Wanted {
  readonly kind: PartKind
  /** Ω or F. */
  readonly value: number
  readonly tolerance?: number
  readonly size?: string
  readonly use: Use
  /** What it has across it, V. */
  readonly workingV?: number
  /** What it turns to heat, W; where only what it has across it is known, that follows from it. */
  readonly watts?: number
  /** What flows through it, A: of jumpers and beads. */
  readonly amps?: number
  readonly dielectric?: Dielectric
}

/** A part that may be at hand. */
export interface StockPart {
  readonly id: string
  readonly kind: PartKind
  readonly value: number
  readonly tolerance?: number
  readonly size?: string
  readonly watts?: number
  /** Rated, V. */
  readonly volts?: number
  readonly amps?: number
  readonly dielectric?: Dielectric
  /** How many are there and not promised to another job. */
  readonly free?: number
}

export interface Judged {
  /** The part, or two of it, one on top of the other or end to end. */
  readonly parts: readonly string[]
  readonly how: 'by itself' | 'two side by side' | 'two end to end'
  /** What it comes to, Ω or F; of a ceramic, what is left of it at its working volts. */
  readonly value: number
  readonly grade: 'like for like' | 'good' | 'for a test' | 'no'
  /** What speaks against it or has to be known, gravest first. */
  readonly but: readonly string[]
}

/** Share of its rating that a part is used at: film resistors in a warm case, IPC-9592 (bench default). */
const LOAD_SHARE = 0.6
/** Working volts over rated, at most, by what it is made of: class II ceramics and tantalum are halved (IPC-9592). */
const voltShare: Readonly<Record<Dielectric, number>> = {
  C0G: 0.8,
  X7R: 0.6,
  X5R: 0.6,
  Y5V: 0.5,
  tantalum: 0.5,
  polymer: 0.8,
  electrolytic: 0.8,
}

/**
 * What is left of a ceramic’s capacitance at a share of its rated volts, 1 / (1 + (u / u½)²), where u½ is the share at which
 * half is left (bench default, from the usual curves: 0402 loses more than 1206). C0G loses nothing.
 */
export function leftAtVolts(dielectric: Dielectric, share: number, size?: string): number {
  const half = { X7R: 0.9, X5R: 0.7, Y5V: 0.3 }[dielectric as 'X7R' | 'X5R' | 'Y5V']
  if (half === undefined) return 1
  const small = size === '0201' || size === '0402' ? 0.8 : 1
  return 1 / (1 + (Math.max(0, share) / (half * small)) ** 2)
}

/** How far the value may be from what it was, as ratios: what the use bears (bench default). */
const valueMay: Readonly<Record<Use, readonly [least: number, most: number]>> = {
  decoupling: [0.8, 3],
  bulk: [0.8, 2],
  timing: [0.99, 1.01],
  pull: [0.67, 1.5],
  series: [0.8, 1.25],
  bead: [0.6, 1.7],
  other: [0.95, 1.05],
}

const dielectricRank: readonly Dielectric[] = ['C0G', 'X7R', 'X5R', 'Y5V']

/** What speaks against a part: that forbids it, that leaves it good for a test, or that is worth knowing. */
interface Said {
  readonly no: string[]
  readonly test: string[]
  readonly notes: string[]
}

/**
 * Whether a part may stand in for another, and why not. Fails closed: what has to be known and is not, is said, and the part
 * is good for a test at most. A part of a kind, use or voltage it cannot bear is `no`, whatever else fits.
 */
function judge(wanted: Wanted, part: StockPart, how: Judged['how'] = 'by itself'): Judged {
  const said: Said = { no: [], test: [], notes: [] }
  const { no, test, notes } = said
  const two = how !== 'by itself'
  const grows = part.kind === 'capacitor' ? 'two side by side' : 'two end to end'
  const nominal = part.value * (!two ? 1 : how === grows ? 2 : 0.5)
  if (part.kind !== wanted.kind) no.push(`a ${part.kind} is no ${wanted.kind}`)
  const value = wanted.kind === 'capacitor' ? leftOf(wanted, part, how, nominal, said) : nominal
  if (wanted.kind === 'resistor' && wanted.value > 0) heat(wanted, part, two ? 2 : 1, said)
  if (wanted.kind === 'bead' || wanted.value === 0) carries(wanted, part, said)
  fitsValue(wanted, part, value, nominal, said)
  fitsPads(wanted, part, said)
  if (part.free !== undefined && part.free < (two ? 2 : 1))
    no.push(part.free === 0 ? 'none is free' : 'only one is free')
  if (two)
    notes.push(how === 'two side by side' ? 'one on top of the other' : 'end to end: they must have room')
  return {
    parts: two ? [part.id, part.id] : [part.id],
    how,
    value,
    grade:
      no.length > 0 ? 'no' : test.length > 0 ? 'for a test' : notes.length > 0 ? 'good' : 'like for like',
    but: [...no, ...test, ...notes],
  }
}

const polar = (d: Dielectric) => d === 'tantalum' || d === 'polymer' || d === 'electrolytic'

/** What is left of a capacitor where it is to work, and whether what it is made of bears that. */
function leftOf(
  { use, dielectric: was, workingV }: Wanted,
  part: StockPart,
  how: Judged['how'],
  nominal: number,
  { no, test, notes }: Said,
): number {
  const is = part.dielectric
  if (is === undefined) test.push('what it is made of is not known')
  else if (use === 'timing' && is !== 'C0G') no.push(`${is} drifts too much for timing: C0G only`)
  else if (was && polar(is) && !polar(was)) no.push(`${is} has a plus and a minus end; it was ${was}`)
  else if (was && polar(was) && !polar(is))
    test.push(`${is} in place of ${was}: a regulator may need the loss it takes away`)
  else if (was && !polar(was) && dielectricRank.indexOf(is) > dielectricRank.indexOf(was))
    (is === 'Y5V' ? no : test).push(`${is} is worse than ${was}`)
  const rated = part.volts === undefined ? undefined : part.volts * (how === 'two end to end' ? 2 : 1)
  if (workingV === undefined) test.push('what it has across it is not known')
  else if (rated === undefined) test.push('what volts it bears is not known')
  if (workingV === undefined || rated === undefined) return nominal
  const share = voltShare[is ?? 'Y5V']
  if (workingV > rated) no.push(`bears ${rated} V, has ${workingV} V across it`)
  else if (workingV > rated * share)
    test.push(`${workingV} V is ${share100(workingV / rated)} of what it bears; ${share100(share)} at most`)
  const left = nominal * leftAtVolts(is ?? 'Y5V', workingV / rated, part.size)
  if (left < nominal * 0.9) notes.push(`${sayValue('capacitor', left)} is left of it at ${workingV} V`)
  return left
}

/** Whether a resistor bears the heat and the volts it has. */
function heat({ value, watts, workingV }: Wanted, part: StockPart, count: number, said: Said): void {
  const { no, test, notes } = said
  const size = part.size === undefined ? undefined : sizeOf(part.size)
  const each = part.watts ?? size?.watts
  const rated = each === undefined ? undefined : each * count
  const needs = watts ?? (workingV === undefined ? undefined : workingV ** 2 / value)
  if (needs === undefined) notes.push('what it turns to heat is not known: harmless on a signal')
  else if (rated === undefined) test.push('what heat it bears is not known')
  else if (needs > rated) no.push(`turns ${needs.toPrecision(2)} W to heat, bears ${rated} W`)
  else if (needs > rated * LOAD_SHARE)
    test.push(`${needs.toPrecision(2)} W is ${share100(needs / rated)} of what it bears`)
  const volts = part.volts ?? size?.volts
  if (workingV !== undefined && volts !== undefined && workingV > volts)
    no.push(`bears ${volts} V, has ${workingV} V across it`)
}

/** Whether a jumper or a bead carries what flows through it. */
function carries(wanted: Wanted, part: StockPart, { no, test }: Said): void {
  const jumper = wanted.value === 0 && part.size !== undefined ? sizeOf(part.size)?.jumperA : undefined
  const amps = part.amps ?? jumper
  if (wanted.amps === undefined) test.push('what flows through it is not known')
  else if (amps === undefined) test.push('what current it carries is not known')
  else if (wanted.amps > amps) no.push(`carries ${amps} A, ${wanted.amps} A flows through it`)
}

/** Whether the value is near enough: what the use bears, or what tolerance it was made to, whichever is wider. */
function fitsValue(wanted: Wanted, part: StockPart, value: number, nominal: number, said: Said): void {
  const { no, test, notes } = said
  const inPlace = (v: number) =>
    `${sayValue(wanted.kind, v)} in place of ${sayValue(wanted.kind, wanted.value)}`
  const [least, most] = valueMay[wanted.use]
  const may = wanted.tolerance ?? 0
  const [low, high] = [Math.min(least, 1 - may), Math.max(most, 1 + may)]
  const spread = part.tolerance ?? 0
  const ratio = value / wanted.value
  // Nothing but a jumper stands in for a jumper.
  if (wanted.value === 0 || nominal === 0) {
    if (wanted.value !== nominal) no.push(inPlace(nominal))
  } else if (ratio * (1 + spread) < low || ratio * (1 - spread) > high) no.push(inPlace(value))
  else if (ratio < low || ratio > high) test.push(inPlace(value))
  else if (Math.abs(nominal / wanted.value - 1) > 1e-6) notes.push(inPlace(nominal))
  if (wanted.tolerance === undefined) return
  const strict = wanted.use === 'timing' || wanted.use === 'other' ? test : notes
  if (part.tolerance === undefined) strict.push('its tolerance is not known')
  else if (part.tolerance > wanted.tolerance)
    strict.push(`${share100(part.tolerance)} in place of ${share100(wanted.tolerance)} tolerance`)
}

/** Whether it reaches its pads, and no further than it should. */
function fitsPads(wanted: Wanted, part: StockPart, { no, test, notes }: Said): void {
  const was = wanted.size === undefined ? undefined : sizeOf(wanted.size)
  const is = part.size === undefined ? undefined : sizeOf(part.size)
  if (!was || was === is) return
  if (!is) return void notes.push('its size is not known')
  const ratio = is.padsMm / was.padsMm
  if (ratio > 1.7 || ratio < 0.6) no.push(`${is.code} does not fit its pads: they are ${was.code}`)
  else
    test.push(
      `${is.code} on pads for ${was.code}: ${ratio >= 1 ? 'mind its neighbours' : 'it just bridges them'}`,
    )
}

const share100 = (share: number) => `${Number((share * 100).toPrecision(2))} %`

const rank = { 'like for like': 0, good: 1, 'for a test': 2, no: 3 } as const

/**
 * What may stand in for a part, best first, those that may not after them with why. Two of a kind are tried where none by
 * itself is good: side by side or end to end.
 */
export function substitutes(wanted: Wanted, stock: readonly StockPart[]): readonly Judged[] {
  const alone = stock.map((part) => judge(wanted, part))
  const good = alone.some((j) => rank[j.grade] <= rank.good)
  const twos =
    good || wanted.value === 0 || wanted.kind === 'bead'
      ? []
      : stock
          .flatMap((part) => [judge(wanted, part, 'two side by side'), judge(wanted, part, 'two end to end')])
          .filter((j) => j.grade !== 'no')
  const off = (j: Judged) => (wanted.value === 0 ? 0 : Math.abs(Math.log(j.value / wanted.value)))
  return [...alone, ...twos].sort(
    (a, b) =>
      rank[a.grade] - rank[b.grade] ||
      a.parts.length - b.parts.length ||
      a.but.length - b.but.length ||
      off(a) - off(b),
  )
}
