import type { HistoryItem } from '../../board/history-item'
import { normalise } from '../../maths/normalise'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import type { Fault } from '../model/fault'
import { brings, chanceToTake } from '../model/repair'
import type { Change } from '../model/repair'
import { members, numbers, pairIndex, UNKNOWN, WIDTH } from './hypotheses'
import { chanceOf, hangsTogether } from './likelihood'
import type { Evidence } from './likelihood'

/**
 * Odds that a board stops at a stage for something in no list, beside those of all that are in it (bench default): over the ten
 * stages one board in eight.
 */
const UNKNOWN_ODDS = 0.015

/** For each hypothesis the one it becomes when a fault is gone, or when one has come to it; two are never made three. */
const becomes = (change: Change): Int32Array => {
  const key = `${brings(change)} ${change.fault}`
  const known = turned.get(key)
  if (known) return known
  const i = numbers.get(change.fault)!
  const to = Int32Array.from({ length: WIDTH }, (_, h) => {
    const of = members[h]
    // What nobody can name is not put right by a repair that has a name.
    if (!of) return h
    if (brings(change))
      return of.includes(i) || of.length === 2 ? h : of.length === 0 ? 1 + i : pairIndex(of[0]!, i)
    if (!of.includes(i)) return h
    return of.length === 1 ? 0 : 1 + of.find((other) => other !== i)!
  })
  turned.set(key, to)
  return to
}
const turned = new Map<string, Int32Array>()

/** Changes of which it is open whether they took; those before them did what they were meant to. */
const MOST_OPEN = 4

/** Chance that the lamps of a board mean something else than the usual: drawn once a board (bench default). */
const LAMPS_LIE = 0.08

/** The cases over which the odds run beside the faults: which changes took, and whether this board’s lamps lie. */
class Cases {
  /** The changes of which it is open whether they took, by index: what a test has put right is certain. */
  private readonly open: readonly number[]
  private readonly known = new Map<number, Int32Array | null>()
  readonly count: number

  constructor(readonly changes: readonly Change[]) {
    // What tests may have left counts once for each fault, and only where no repair needs the place.
    const left = [...changes.keys()].filter(
      (i) =>
        changes[i]!.is === 'left' &&
        !changes.slice(i + 1).some((c) => c.is === 'left' && c.fault === changes[i]!.fault),
    )
    const work = [...changes.keys()].filter((i) => changes[i]!.is === 'mended' || changes[i]!.is === 'made')
    this.open = [...left, ...work].slice(-MOST_OPEN).sort((a, b) => a - b)
    this.count = 2 << this.open.length
  }

  lampsLie(at: number): boolean {
    return (at & 1) === 1
  }

  /** Whether an open change took: by its place among them. */
  private took(at: number, bit: number): boolean {
    return (at & (2 << bit)) !== 0
  }

  /** How likely a case is before anything is seen. */
  weight(at: number): number {
    return this.open.reduce(
      (all, i, bit) => {
        const chance = chanceToTake(this.changes[i]!)
        return all * (this.took(at, bit) ? chance : 1 - chance)
      },
      this.lampsLie(at) ? LAMPS_LIE : 1 - LAMPS_LIE,
    )
  }

  /** What each hypothesis of the board as it came has become after so many changes; null for itself. */
  became(at: number, after: number): Int32Array | null {
    if (after === 0) return null
    const key = after * this.count + (at & ~1)
    const known = this.known.get(key)
    if (known !== undefined) return known
    const change = this.changes[after - 1]!
    const before = this.became(at, after - 1)
    const bit = this.open.indexOf(after - 1)
    const takes = bit >= 0 ? this.took(at, bit) : !brings(change)
    const step = takes ? becomes(change) : null
    const now = step && before ? before.map((h) => step[h]!) : (step ?? before)
    this.known.set(key, now)
    return now
  }

  /** Goes through every place of some odds: the hypothesis it has become by then, and whether the lamps lie. */
  each(after: number, visit: (place: number, became: number, lampsLie: boolean) => void): void {
    for (let at = 0; at < this.count; at++) {
      const to = this.became(at, after)
      const lampsLie = this.lampsLie(at)
      for (let h = 0; h < WIDTH; h++) visit(at * WIDTH + h, to ? to[h]! : h, lampsLie)
    }
  }
}

/** The likeliest history alone makes a fault, as a probability (bench default). */
const MOST_LIKELY = 0.9

/** Faults of which a board has one at most: they are the same thing, gone wrong in one way or another. */
const eitherOr: readonly (readonly FaultId[])[] = [
  ['firmware corrupt', 'firmware partly corrupt'],
  ['firmware chip', 'chip dead'],
  ['CPU', 'CPU memory side', 'CPU unsupported'],
  ['core controller', 'core regulator part'],
]

/** How much likelier a fault is that was mended when the board was here before (bench default). */
const RETURNS = 4

/**
 * Odds before any test: history multiplies a fault’s odds, up to `MOST_LIKELY`; two at once are as likely as both.
 * `again` were mended when this board was here before; `own` are the shop's own odds instead of the bench defaults.
 * A board on the bench has at least one; several are likelier where others have worked on it.
 */
export function priorOdds(
  history: readonly HistoryItem[],
  again: readonly FaultId[] = [],
  own: Readonly<Partial<Record<FaultId, number>>> = {},
): Float64Array {
  const each = faultIds.map((id) => {
    const { odds, likelier }: Fault = faults[id]
    const returns = again.includes(id) ? RETURNS : 1
    const usual = Math.min(MOST_LIKELY, own[id] ?? odds)
    const told =
      (usual / (1 - usual)) * returns * history.reduce((all, item) => all * (likelier[item] ?? 1), 1)
    return Math.min(told, MOST_LIKELY / (1 - MOST_LIKELY))
  })
  const both = history.includes('worked on by others') ? 2.5 : 1
  const together = (a: number, b: number) =>
    eitherOr.some((one) => one.includes(faultIds[a]!) && one.includes(faultIds[b]!))
      ? 0
      : each[a]! * each[b]! * both
  const weights = Float64Array.from({ length: WIDTH }, (_, h) => {
    const of = members[h] ?? []
    return of.length === 0 ? 0 : of.length === 1 ? each[of[0]!]! : together(of[0]!, of[1]!)
  })
  const known = weights.reduce((a, b) => a + b, 0)
  weights.fill(UNKNOWN_ODDS * known, UNKNOWN)
  return normalise(weights)
}

/**
 * Bayes over all hypotheses of the board as it came, and over which of the changes took: a repair succeeds with its
 * chance, work makes a fault with its chance (`chanceToTake`), once and for all that is seen after it.
 * What was seen is independent given both. A claim weighs by its reliability r: r·P(outcome | faults) + (1 − r)/outcomes.
 *
 * Whether this board’s lamps lie is drawn once as well: five lamps of one board that lies say no more than one.
 *
 * @returns a row of hypotheses for each case: which changes took, and whether the lamps lie; `standing` sums them up
 * @throws RangeError for a test or an outcome that is not in the list
 */
export function posterior(
  prior: Float64Array,
  evidence: readonly Evidence[],
  changes: readonly Change[] = [],
): Float64Array {
  const cases = new Cases(changes)
  const odds = new Float64Array(cases.count * WIDTH)
  for (let at = 0; at < cases.count; at++) {
    const weight = cases.weight(at)
    for (let h = 0; h < WIDTH; h++) odds[at * WIDTH + h] = prior[h]! * weight
  }
  for (const together of hangsTogether(evidence)) weigh(odds, together, cases)
  return odds
}

/** Multiplies the odds by the chance of what was seen, or divides by it. */
function weigh(odds: Float64Array, together: readonly Evidence[], cases: Cases, without = false): void {
  const [truly, lying] = chanceOf(together)
  cases.each(together[0]?.after ?? 0, (place, h, lampsLie) => {
    const p = (lampsLie ? lying : truly)[h]!
    odds[place]! *= without ? 1 / p : p
  })
  normalise(odds)
}

/** For each thing that was seen, how the board stands by all the others: the odds as they would be without it. */
export function withoutEach(
  odds: Float64Array,
  evidence: readonly Evidence[],
  changes: readonly Change[],
): readonly Float64Array[] {
  const cases = new Cases(changes)
  const groups = hangsTogether(evidence)
  return evidence.map((seen) => {
    const less = Float64Array.from(odds)
    const together = groups.find((group) => group.includes(seen))!
    weigh(less, together, cases, true)
    if (together.length > 1)
      weigh(
        less,
        together.filter((e) => e !== seen),
        cases,
      )
    return stands(less, cases)
  })
}

/**
 * Chance of each thing that was seen, a start by itself, by what is in the list, given the odds over the board as it came in and
 * which changes took. Something in no list explains nothing by being thought of.
 */
export function expected(
  odds: Float64Array,
  evidence: readonly Evidence[],
  changes: readonly Change[] = [],
): readonly number[] {
  const cases = new Cases(changes)
  return evidence.map(({ earlier: _, ...seen }) => {
    const [truly, lying] = chanceOf([seen])
    let sum = 0
    let listed = 0
    cases.each(seen.after ?? 0, (place, h, lampsLie) => {
      if (h >= UNKNOWN) return
      listed += odds[place]!
      sum += odds[place]! * (lampsLie ? lying : truly)[h]!
    })
    return listed > 0 ? sum / listed : 0
  })
}

/** Chance that a fault somebody here mended had been there (bench default). */
const MENDED_RIGHTLY = 0.9

/** Odds over the board as it came in, told that these faults were found and mended. */
export function withMends(odds: Float64Array, changes: readonly Change[]): Float64Array {
  const told = Float64Array.from(odds)
  for (const { is, fault } of new Map(changes.map((c) => [`${c.is} ${c.fault}`, c])).values()) {
    if (is !== 'mended' || brings(changes.find((c) => c.fault === fault)!)) continue
    const i = numbers.get(fault)!
    for (let h = 0; h < told.length; h++)
      told[h]! *= members[h]?.includes(i) ? MENDED_RIGHTLY : 1 - MENDED_RIGHTLY
  }
  return normalise(told)
}

/** The odds of how the board stands after all the changes, whichever of them took. */
export const standing = (odds: Float64Array, changes: readonly Change[]): Float64Array =>
  stands(odds, new Cases(changes))

function stands(odds: Float64Array, cases: Cases): Float64Array {
  const now = new Float64Array(WIDTH)
  cases.each(cases.changes.length, (place, h) => (now[h]! += odds[place]!))
  return now
}

/** Chance that it is something in no list, whatever the stage. */
export const unknownOdds = (odds: Float64Array): number => odds.subarray(UNKNOWN).reduce((a, b) => a + b, 0)

/** Chance that each fault is there, in the order of `faultIds`. */
export function faultOdds(odds: Float64Array): Float64Array {
  const each = new Float64Array(faultIds.length)
  for (let h = 0; h < members.length; h++) for (const i of members[h]!) each[i]! += odds[h]!
  return each
}
