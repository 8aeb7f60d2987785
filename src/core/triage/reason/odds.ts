import type { HistoryItem } from '../../board/history-item'
import { benchTests } from '../model/bench-tests'
import { outcomesMeant } from '../model/bench-test'
import type { BenchTest } from '../model/bench-test'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import type { Fault } from '../model/fault'
import { brings, chanceToTake } from '../model/repair'
import type { Change } from '../model/repair'
import { stages } from '../model/stage'
import { startOutcomes } from '../model/start-model'
import type { UnknownStage } from '../model/start-model'

/** One thing that was seen: a test, its outcome, and how many of the changes had been made by then. */
export interface Evidence {
  readonly test: string
  readonly outcome: string
  readonly after?: number
  /** What the starts before it came to, of the same set-up and with nothing done in between. */
  readonly earlier?: readonly string[]
  /** A claim: chance that it was done and seen as it is told; left out for what was seen here. */
  readonly reliability?: number
}

/** Starts of one set-up that are counted beside the last: more of them say nothing more. */
const MOST_STARTS = 15

/**
 * What was seen, in order, as it counts: starts of one test with nothing done in between are one piece of evidence, each of
 * them counted; of anything else that was read again the last reading stands.
 */
export function asItCounts<E extends Evidence>(seen: readonly E[]): readonly E[] {
  const by = new Map<string, E>()
  for (const one of seen) {
    const key = `${one.test} after ${one.after ?? 0}`
    const before = by.get(key)
    by.delete(key)
    const earlier =
      before && testOf(one.test).outcomes === startOutcomes
        ? [...(before.earlier ?? []), before.outcome, ...(one.earlier ?? [])].slice(-MOST_STARTS)
        : []
    by.set(key, earlier.length > 0 ? { ...one, earlier } : one)
  }
  return [...by.values()]
}

const N = faultIds.length

/** All sets of none, one or two faults; the second is −1 where there is none. Nothing wrong is the first of them. */
export const hypotheses: readonly (readonly FaultId[])[] = [
  [],
  ...faultIds.map((id) => [id]),
  ...faultIds.flatMap((a, i) => faultIds.slice(i + 1).map((b) => [a, b])),
]
/** Stages at which a board may stop for something that is in no list: one hypothesis each, after all the others. */
export const unknownStages = stages.slice(0, -1) as readonly UnknownStage[]
/** Index of the first of them. */
export const UNKNOWN = hypotheses.length
/** All hypotheses, the unknown ones among them. */
export const WIDTH = UNKNOWN + unknownStages.length
/** Odds that a board stops at a stage for something in no list, beside those of all that are in it (bench default). */
const UNKNOWN_ODDS = 0.01

const pairIndex = (a: number, b: number): number => {
  const [i, j] = a < b ? [a, b] : [b, a]
  return 1 + N + i * N - (i * (i + 1)) / 2 + (j - i - 1)
}

const numbers = new Map(faultIds.map((id, i) => [id, i]))
/** The same as numbers of `faultIds`. */
export const members: readonly (readonly number[])[] = hypotheses.map((ids) =>
  ids.map((id) => numbers.get(id)!),
)

/** The fault of a set that a start meets first; −1 for none, and for something else. */
export const leading = Int16Array.from(
  [...members, ...unknownStages.map(() => [])],
  (of: readonly number[]) => of.reduce((best, i) => (best < 0 || stageOf(i) < stageOf(best) ? i : best), -1),
)
function stageOf(i: number): number {
  return stages.indexOf(faults[faultIds[i]!].stage)
}

const byId = new Map(benchTests.map((t) => [t.id, t]))
/** @throws RangeError for a test that is not in the list */
export function testOf(id: string): BenchTest {
  const test = byId.get(id)
  if (!test) throw new RangeError(`there is no test “${id}”`)
  return test
}

/** How far the log-odds of a figure may be from the truth, either way (bench default). */
const FIGURE_DOUBT = 0.3

/**
 * An outcome's chance as far as it is known: a figure's log-odds may be off by `FIGURE_DOUBT` of itself either way, so
 * what is reckoned with is the mean over that range (five points), which is never as sure as the figure says.
 */
function asKnown(odds: Float64Array): Float64Array {
  return normalise(
    odds.map((p) => {
      const safe = Math.min(1 - 1e-9, Math.max(1e-9, p))
      const logit = Math.log(safe / (1 - safe))
      let mean = 0
      for (let k = -2; k <= 2; k++) mean += 1 / (1 + Math.exp(-logit * (1 + (FIGURE_DOUBT * k) / 2.5))) / 5
      return mean
    }),
  )
}

const kept = new Map<string, Float64Array[]>()

/** Chance of each outcome of a test under each hypothesis: one row an outcome. Worked out once. */
export function likelihood(test: BenchTest): readonly Float64Array[] {
  const known = kept.get(test.id)
  if (known) return known
  const rows = test.outcomes.map(() => new Float64Array(WIDTH))
  hypotheses.forEach((ids, h) => {
    const odds = asKnown(test.odds(ids))
    rows.forEach((row, o) => (row[h] = odds[o]!))
  })
  unknownStages.forEach((stage, u) => {
    const odds = asKnown(test.odds([], stage))
    rows.forEach((row, o) => (row[UNKNOWN + u] = odds[o]!))
  })
  kept.set(test.id, rows)
  return rows
}

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
  const weights = Float64Array.from({ length: WIDTH }, (_, h) => {
    const of = members[h] ?? []
    return of.length === 0 ? 0 : of.length === 1 ? each[of[0]!]! : each[of[0]!]! * each[of[1]!]! * both
  })
  const known = weights.reduce((a, b) => a + b, 0)
  weights.fill(UNKNOWN_ODDS * known, UNKNOWN)
  return normalise(weights)
}

export function normalise(weights: Float64Array): Float64Array {
  let sum = 0
  for (const w of weights) sum += w
  if (sum > 0) for (let i = 0; i < weights.length; i++) weights[i]! /= sum
  return weights
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
  for (const seen of evidence) weigh(odds, seen, cases)
  return odds
}

const lamps: ReadonlySet<string> = new Set(
  startOutcomes.filter((o) => o.endsWith(' lamp') && !o.includes('no lamp')),
)
const lampRows = new WeakMap<readonly Float64Array[], Float64Array>()
/** Chance of one lamp where any of them may mean any stage: the mean of them. */
function anyLamp(rows: readonly Float64Array[]): Float64Array {
  let mean = lampRows.get(rows)
  if (mean) return mean
  mean = new Float64Array(WIDTH)
  startOutcomes.forEach((outcome, o) => {
    if (lamps.has(outcome)) rows[o]!.forEach((p, h) => (mean![h]! += p / lamps.size))
  })
  lampRows.set(rows, mean)
  return mean
}

/** Multiplies the odds by the chance of what was seen, or divides by it. */
function weigh(odds: Float64Array, seen: Evidence, cases: Cases, without = false): void {
  const chance = chanceOf(seen)
  cases.each(seen.after ?? 0, (place, h, lampsLie) => {
    const p = chance(h, lampsLie)
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
  return evidence.map((seen) => {
    const less = Float64Array.from(odds)
    weigh(less, seen, cases, true)
    return stands(less, cases)
  })
}

/** How often a reading made here is noted as another than it was (bench default). */
const MISREAD = 0.02

/**
 * Chance of what was seen, by hypothesis of the board as it stood: r·P(outcome | h) + (1 − r)/outcomes; of what leaves
 * open which of several it was, the sum over them.
 *
 * Starts of one set-up are as alike as this board makes them, and nobody knows how much that is. Either what a start comes
 * to is drawn anew each time, Πₖ (r·P(oₖ | h) + (1 − r)/n), or once for all of them and each was noted rightly or not,
 * Σₒ P(o | h)·Πₖ (r·[oₖ = o] + (1 − r)/n); each as likely as the other. So the tenth dark start says little that the
 * second did not, and one that came up among dark ones says that it comes and goes.
 */
function chanceOf(seen: Evidence): (h: number, lampsLie: boolean) => number {
  const test = testOf(seen.test)
  const all = [...(seen.earlier ?? []), seen.outcome]
  const at = all.map((outcome) => {
    const meant = outcomesMeant(test, outcome)
    if (meant.length === 0) throw new RangeError(`“${outcome}” is no outcome of “${seen.test}”`)
    return meant.map((o) => test.outcomes.indexOf(o))
  })
  const rows = likelihood(test)
  // Of a board whose lamps lie any lamp may stand for any stage.
  const lying = (o: number) => (lamps.has(test.outcomes[o]!) ? anyLamp(rows) : rows[o]!)
  // One reading in so many is noted as another, whoever reads it.
  const r = (seen.reliability ?? 1) * (1 - MISREAD)
  const blur = (1 - r) / test.outcomes.length
  const p = (o: number, h: number, lampsLie: boolean) => (lampsLie ? lying(o) : rows[o]!)[h]!
  const each = (of: readonly number[], h: number, lampsLie: boolean) => {
    let sum = of.length * blur
    for (const o of of) sum += r * p(o, h, lampsLie)
    return sum
  }
  if (at.length === 1) return (h, lampsLie) => each(at[0]!, h, lampsLie)
  const noted = rows.map((_, o) =>
    at.reduce((product, of) => product * ((of.includes(o) ? r : 0) + of.length * blur), 1),
  )
  return (h, lampsLie) => {
    const anew = at.reduce((product, of) => product * each(of, h, lampsLie), 1)
    return (anew + noted.reduce((sum, chance, o) => sum + chance * p(o, h, lampsLie), 0)) / 2
  }
}

/** Chance of each thing that was seen, a start by itself, given the odds over the board as it came in and which changes took. */
export function expected(
  odds: Float64Array,
  evidence: readonly Evidence[],
  changes: readonly Change[] = [],
): readonly number[] {
  const cases = new Cases(changes)
  return evidence.map(({ earlier: _, ...seen }) => {
    const chance = chanceOf(seen)
    let sum = 0
    cases.each(seen.after ?? 0, (place, h, lampsLie) => (sum += odds[place]! * chance(h, lampsLie)))
    return sum
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
  const each = new Float64Array(N)
  for (let h = 0; h < members.length; h++) for (const i of members[h]!) each[i]! += odds[h]!
  return each
}
