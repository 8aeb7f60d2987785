import { normalise } from '../../maths/normalise'
import { percent } from '../../maths/percent'
import { nearest } from '../value/e-series'
import { kindOfRef, sayValue } from '../value/quantity'
import type { PartKind } from '../value/quantity'
import { sizesFor } from '../value/size-code'
import { chanceOfPad, neverGuessed, padKinds, readingsOf, slipAmong, toRead } from './pad'
import type { PadKind, PadSeen } from './pad'

export const roles = [
  'series',
  'pull-up',
  'pull-down',
  'strap',
  'decoupling',
  'bulk',
  'coupling',
  'feedback',
  'sense',
  'clock load',
  'bead',
] as const
export type Role = (typeof roles)[number]

/** How often two pads of a part near a chip are on these two, and what the part does there (bench default). */
const usual: readonly (readonly [Role, PadKind, PadKind, number])[] = [
  ['series', 'data', 'data', 0.16],
  ['coupling', 'lane', 'lane', 0.05],
  ['series', 'clock', 'clock', 0.03],
  ['series', 'control', 'control', 0.02],
  ['pull-up', 'supply', 'data', 0.09],
  ['pull-up', 'supply', 'control', 0.04],
  ['pull-down', 'ground', 'data', 0.05],
  ['pull-down', 'ground', 'control', 0.02],
  ['strap', 'supply', 'strap', 0.04],
  ['strap', 'ground', 'strap', 0.04],
  ['decoupling', 'supply', 'ground', 0.33],
  ['bulk', 'supply', 'ground', 0.05],
  ['feedback', 'supply', 'feedback', 0.025],
  ['feedback', 'ground', 'feedback', 0.025],
  ['sense', 'supply', 'sense', 0.02],
  ['sense', 'ground', 'sense', 0.01],
  ['clock load', 'ground', 'clock', 0.02],
  ['bead', 'supply', 'supply', 0.04],
]

/** What a part of each role is: kind, the range it usually lies in, the value to start with, of E12 (bench default). */
const values: Readonly<
  Record<
    Role,
    { readonly kind: PartKind; readonly least: number; readonly most: number; readonly usual: number }
  >
> = {
  series: { kind: 'resistor', least: 10, most: 100, usual: 33 },
  'pull-up': { kind: 'resistor', least: 1e3, most: 1e5, usual: 4.7e3 },
  'pull-down': { kind: 'resistor', least: 1e3, most: 1e5, usual: 1e4 },
  strap: { kind: 'resistor', least: 1e3, most: 1e5, usual: 1e4 },
  decoupling: { kind: 'capacitor', least: 1e-8, most: 1e-6, usual: 1e-7 },
  bulk: { kind: 'capacitor', least: 4.7e-6, most: 4.7e-5, usual: 2.2e-5 },
  coupling: { kind: 'capacitor', least: 7.5e-8, most: 2.2e-7, usual: 1e-7 },
  feedback: { kind: 'resistor', least: 100, most: 1e5, usual: 1e4 },
  sense: { kind: 'resistor', least: 1, most: 1e3, usual: 10 },
  'clock load': { kind: 'capacitor', least: 6e-12, most: 33e-12, usual: 15e-12 },
  bead: { kind: 'bead', least: 30, most: 1e3, usual: 120 },
}

/** Roles of which a value may be tried: low-current data, nothing that feeds, times, resets or chooses. */
const mayGuess: ReadonlySet<Role> = new Set<Role>(['series', 'pull-up', 'pull-down'])
/** Least odds of a role, and most odds of anything that is never guessed, for a value to be tried (bench default). */
const SURE = 0.95
const NEVER = 5e-4

/** A part of the same map that sits as this one did: same row, same bus. */
export interface Twin {
  readonly ref: string
  /** Ω or F, as measured off the board or read. */
  readonly value: number
}

export interface MissingPart {
  /** Its name as printed on the board: its letters say whether it was a resistor, a capacitor or a bead. */
  readonly ref?: string
  readonly a: PadSeen
  readonly b: PadSeen
  /** Middle to middle of the two pads, mm. */
  readonly padsMm?: number
  readonly padWidthMm?: number
  readonly twins?: readonly Twin[]
  /** Supply of the place, V: for what flows. */
  readonly supplyV?: number
}

export interface PadBelief {
  /** Likeliest first, those below one in a hundred left out. */
  readonly on: readonly { readonly kind: PadKind; readonly odds: number }[]
  /** The reading that the others speak against. */
  readonly doubtful: { readonly what: string; readonly odds: number } | null
}

export interface Inference {
  readonly roles: readonly { readonly role: Role; readonly odds: number }[]
  readonly a: PadBelief
  readonly b: PadBelief
  readonly kind: PartKind
  /** Where the value of such a part usually lies, Ω or F. */
  readonly range: { readonly least: number; readonly most: number; readonly say: string }
  /** Value to fit: by a twin, or to be tried; null where it is never guessed, or not known well enough. */
  readonly value: { readonly value: number; readonly say: string; readonly by: 'twin' | 'guess' } | null
  /** Why there is none, and the ways on. */
  readonly refused: { readonly because: string; readonly ways: readonly string[] } | null
  readonly sizes: readonly string[]
  /** What flows and what it turns to heat, once it is fitted. */
  readonly power: { readonly amps: number; readonly watts: number; readonly say: string } | null
  /** What the meter must show once it is fitted. */
  readonly expects: { readonly least: number; readonly most: number; readonly say: string } | null
  /** Readings that would tell most of what it did, bits. */
  readonly next: readonly { readonly pad: 'a' | 'b'; readonly what: string; readonly tells: number }[]
}

interface Pair {
  readonly role: Role
  readonly a: number
  readonly b: number
  readonly odds: number
}
/** Every way two pads may be on what a role needs, either way round. */
const pairs: readonly Pair[] = usual.flatMap(([role, one, other, odds]) => {
  const [a, b] = [padKinds.indexOf(one), padKinds.indexOf(other)]
  return a === b
    ? [{ role, a, b, odds }]
    : [
        { role, a, b, odds: odds / 2 },
        { role, a: b, b: a, odds: odds / 2 },
      ]
})

/** A pad’s prior: what pads of small parts are on. */
const padPrior = normalise(
  Float64Array.from(padKinds, (_, k) => pairs.reduce((sum, p) => sum + (p.a === k ? p.odds : 0), 0)),
)

const weigh = (a: Float64Array, b: Float64Array): Float64Array =>
  normalise(Float64Array.from(pairs, (p) => p.odds * a[p.a]! * b[p.b]!))

const byRole = (of: Float64Array): Float64Array =>
  Float64Array.from(roles, (role) => of.reduce((sum, p, i) => (pairs[i]!.role === role ? sum + p : sum), 0))

const bits = (odds: Float64Array): number =>
  odds.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0)

/** Bulk capacitors stand on larger pads than the small ones beside chips: odds of the sizes (bench default). */
const largePads = (role: Role, padsMm: number | undefined): number =>
  padsMm === undefined
    ? 1
    : role === 'bulk'
      ? padsMm > 1.75
        ? 0.9
        : 0.1
      : role === 'decoupling'
        ? padsMm > 1.75
          ? 0.1
          : 0.9
        : 0.5

/** How often the letters of a part’s name say another kind than it was: misread, or of the part beside it (bench default). */
const MISNAMED = 0.02
const asNamed = (role: Role, ref: string | undefined): number => {
  const kind = ref === undefined ? null : kindOfRef(ref)
  return kind === null ? 1 : kind === values[role].kind ? 1 - MISNAMED : MISNAMED
}

/**
 * What a missing part did, by Bayes over what its two pads are on: P(role, a, b) · P(readings of a | a) · P(readings of b | b),
 * each reading a step of the meter that is another with `SLIP`. A value is given by a twin, or is tried on low-current data
 * alone, and only where both pads are known well enough to rule out power, feedback, sense, straps, resets and clocks.
 * Limits: two pads; no network; tables are bench defaults.
 */
export function inferMissing(part: MissingPart): Inference {
  const { ref, a, b, padsMm, padWidthMm, twins = [], supplyV } = part
  const [readA, readB] = [readingsOf(a), readingsOf(b)]
  const [chanceA, chanceB] = [chanceOfPad(readA), chanceOfPad(readB)]
  const raw = weigh(chanceA, chanceB)
  const odds = normalise(
    raw.map((p, i) => p * largePads(pairs[i]!.role, padsMm) * asNamed(pairs[i]!.role, ref)),
  )
  const role = byRole(odds)
  const order = [...roles.keys()].sort((x, y) => role[y]! - role[x]!)
  const top = roles[order[0]!]!
  const never = odds.reduce(
    (sum, p, i) =>
      mayGuess.has(pairs[i]!.role) &&
      !neverGuessed.has(padKinds[pairs[i]!.a]!) &&
      !neverGuessed.has(padKinds[pairs[i]!.b]!)
        ? sum
        : sum + p,
    0,
  )
  const on = (pad: 'a' | 'b') => {
    const by = Float64Array.from(padKinds, (_, k) =>
      odds.reduce((sum, p, i) => (pairs[i]![pad] === k ? sum + p : sum), 0),
    )
    return padKinds
      .map((kind, k) => ({ kind, odds: by[k]! }))
      .filter((p) => p.odds >= 0.01)
      .sort((x, y) => y.odds - x.odds)
  }
  const doubtful = { a: slipAmong(readA, padPrior), b: slipAmong(readB, padPrior) }
  const { kind, least, most, usual: often } = values[top]
  const named = ref === undefined ? null : kindOfRef(ref)
  const value =
    named !== null && named !== kind
      ? { is: null, because: `${ref} by its name was a ${named}, by its pads a ${kind}` }
      : valueOf(top, role[order[0]!]!, never, twins, doubtful.a !== null || doubtful.b !== null)
  const sizes = padsMm === undefined ? [] : sizesFor(padsMm, padWidthMm).map((s) => s.code)
  return {
    roles: order.flatMap((i) => (role[i]! >= 0.01 ? [{ role: roles[i]!, odds: role[i]! }] : [])),
    a: { on: on('a'), doubtful: doubtful.a },
    b: { on: on('b'), doubtful: doubtful.b },
    kind,
    range: {
      least,
      most,
      say: `${sayValue(kind, least)} to ${sayValue(kind, most)}, often ${sayValue(kind, often)}`,
    },
    value:
      value.is === null
        ? null
        : { value: value.is, say: sayValue(kind, value.is), by: twins.length > 0 ? 'twin' : 'guess' },
    refused: value.is === null ? { because: value.because, ways: waysOn(top, doubtful) } : null,
    sizes,
    power: value.is === null ? null : powerOf(top, value.is, supplyV),
    expects: value.is === null ? null : expectedOf(top, value.is),
    next: worthReading(part, odds),
  }
}

/** Twins this far apart, as a ratio, are not twins (bench default). */
const TWINS_AGREE = 1.3

/** The value to fit, or why there is none. */
function valueOf(
  role: Role,
  odds: number,
  never: number,
  twins: readonly Twin[],
  contradict: boolean,
): { readonly is: number | null; readonly because: string } {
  const none = (because: string) => ({ is: null, because })
  if (contradict) return none('a reading contradicts the others')
  const { kind, usual: often } = values[role]
  // Another regulator’s twin sets another voltage: no value is taken from it.
  if (twins.length > 0 && (role === 'feedback' || role === 'sense'))
    return none(`${roleWords[role]} is never guessed, nor taken from a twin`)
  if (twins.length > 0) {
    const sorted = twins.map((t) => t.value).sort((x, y) => x - y)
    const [low, high] = [sorted[0]!, sorted.at(-1)!]
    if (high > low * TWINS_AGREE)
      return none(`its twins differ: ${twins.map((t) => `${t.ref} ${sayValue(kind, t.value)}`).join(', ')}`)
    if (odds < SURE) return none(`what it did is not sure enough (${percent(odds)} ${role})`)
    const middle = sorted[Math.floor(sorted.length / 2)]!
    // In circuit a value reads low rather than high; the preferred value next to it is what was fitted.
    return { is: middle > 0 ? nearest(middle, 24) : 0, because: '' }
  }
  if (!mayGuess.has(role)) return none(`${roleWords[role]} is never guessed`)
  if (odds < SURE) return none(`what it did is not sure enough (${percent(odds)} ${role})`)
  if (never >= NEVER) return none('a fast lane, clock, reset, strap, feedback or sense line is not ruled out')
  return { is: often, because: '' }
}

const roleWords: Readonly<Record<Role, string>> = {
  series: 'a part in series',
  'pull-up': 'a pull-up',
  'pull-down': 'a pull-down',
  strap: 'a strap',
  decoupling: 'a capacitor of a supply',
  bulk: 'a capacitor of a supply',
  coupling: 'a capacitor in a fast lane',
  feedback: 'what sets a voltage or a current',
  sense: 'a sense line',
  'clock load': 'a part of a clock',
  bead: 'a part a supply flows through',
}

/** What leads on where a value is not guessed. */
function waysOn(
  role: Role,
  doubtful: { readonly a: PadBelief['doubtful']; readonly b: PadBelief['doubtful'] },
): readonly string[] {
  const again = (['a', 'b'] as const).flatMap((pad) =>
    doubtful[pad] ? [`Read pad ${pad.toUpperCase()} again: ${doubtful[pad].what} does not fit the rest`] : [],
  )
  const twin =
    role === 'decoupling' || role === 'bulk'
      ? 'Measure a twin: another of its size between the same supply and ground, off the board'
      : role === 'feedback' || role === 'sense'
        ? 'The same regulator’s other phase, or the same place on a donor board, part lifted at one end'
        : 'Measure its twin in the same row or on the same bus, one end lifted'
  return [
    ...again,
    'Look it up on a board map of this revision: net and value',
    twin,
    'Measure it on a good board of the same revision',
    ...(role === 'decoupling'
      ? ['One of many on its supply: the board mostly runs without it; note it as owed']
      : []),
  ]
}

/** What flows through it at the most, and what it turns to heat. */
function powerOf(role: Role, value: number, supplyV: number | undefined): Inference['power'] {
  if (values[role].kind !== 'resistor' || supplyV === undefined || value === 0) return null
  // A driver gives some milliamps at the most; a pull carries its supply against a line held at the other end.
  const amps = role === 'series' ? Math.min(0.008, supplyV / value) : supplyV / value
  const watts = amps ** 2 * value
  return {
    amps,
    watts,
    say: `${Number((amps * 1e3).toPrecision(2))} mA, ${Number((watts * 1e3).toPrecision(2))} mW at ${supplyV} V`,
  }
}

/** Meter, leads and tolerance of the part (bench default). */
const READS_WITHIN = 0.1
const LEADS = 0.5

/** What is read across it once it is fitted: in circuit other ways can only make it less. */
function expectedOf(role: Role, value: number): Inference['expects'] {
  if (values[role].kind !== 'resistor') return null
  const most = value * (1 + READS_WITHIN) + LEADS
  const least = role === 'series' ? value * (1 - READS_WITHIN) : value * 0.3
  const say = (ohms: number) => sayValue('resistor', Number(ohms.toPrecision(2)))
  return {
    least,
    most,
    say:
      role === 'series'
        ? `from pin to far end ${say(least)} to ${say(most)}`
        : `from the line to its ${role === 'pull-up' ? 'supply' : 'ground'} ${say(least)} to ${say(most)}; less only where something else pulls too`,
  }
}

/** Which reading would tell most of what it did: the mutual information of its steps and the role. */
function worthReading({ a, b }: MissingPart, odds: Float64Array): Inference['next'] {
  const now = bits(byRole(odds))
  const rail = Object.keys({ ...a.rails, ...b.rails })[0] ?? 'the supply beside it'
  return (['a', 'b'] as const)
    .flatMap((pad) =>
      toRead(pad === 'a' ? a : b, rail).map(({ what, steps }) => {
        const left = steps.reduce((sum, chance) => {
          const then = odds.map((p, i) => p * chance[pairs[i]![pad]]!)
          const share = then.reduce((all, p) => all + p, 0)
          return share > 0 ? sum + share * bits(byRole(normalise(then))) : sum
        }, 0)
        return { pad, what, tells: Math.max(0, now - left) }
      }),
    )
    .filter((r) => r.tells >= 0.01)
    .sort((x, y) => y.tells - x.tells)
    .slice(0, 3)
}
