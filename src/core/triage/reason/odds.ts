import type { HistoryItem } from '../../board/history-item'
import { benchTests } from '../model/bench-tests'
import type { BenchTest } from '../model/bench-test'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import type { Fault } from '../model/fault'
import { stages } from '../model/stage'

/** One thing that was seen: a test, its outcome, and which faults had been mended by then. */
export interface Evidence {
  readonly test: string
  readonly outcome: string
  readonly mended?: readonly FaultId[]
  /** A claim: chance that it was done and seen as it is told; left out for what was seen here. */
  readonly reliability?: number
}

const N = faultIds.length

/** All sets of none, one or two faults; the second is −1 where there is none. Nothing wrong is the first of them. */
export const hypotheses: readonly (readonly FaultId[])[] = [
  [],
  ...faultIds.map((id) => [id]),
  ...faultIds.flatMap((a, i) => faultIds.slice(i + 1).map((b) => [a, b])),
]
/** Index of “something I do not know”, after all the others: it can look like anything. */
export const SOMETHING_ELSE = hypotheses.length
/** Odds that a board has something that is in no list (bench default). */
const ELSE_ODDS = 0.01

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
export const leading = Int16Array.from([...members, []], (of) =>
  of.reduce((best, i) => (best < 0 || stageOf(i) < stageOf(best) ? i : best), -1),
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
  const rows = test.outcomes.map(() => new Float64Array(hypotheses.length + 1))
  hypotheses.forEach((ids, h) => {
    const odds = asKnown(test.odds(ids))
    rows.forEach((row, o) => (row[h] = odds[o]!))
  })
  for (const row of rows) row[SOMETHING_ELSE] = 1 / rows.length
  kept.set(test.id, rows)
  return rows
}

/** For each hypothesis the one that is left of it when these faults are mended. */
function leftOf(mended: readonly FaultId[]): Int32Array {
  const gone = new Set(mended.map((id) => numbers.get(id)!))
  return Int32Array.from([...members, [-1]], (of) => {
    if (of[0] === -1) return SOMETHING_ELSE
    const left = of.filter((i) => !gone.has(i))
    return left.length === 0 ? 0 : left.length === 1 ? 1 + left[0]! : pairIndex(left[0]!, left[1]!)
  })
}

/** How much likelier a fault is that was mended when the board was here before (bench default). */
const RETURNS = 4

/**
 * Odds before any test: each fault on its own, as likely as history makes it; two at once as likely as both.
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
    return (own[id] ?? odds) * returns * history.reduce((all, item) => all * (likelier[item] ?? 1), 1)
  })
  const both = history.includes('worked on by others') ? 2.5 : 1
  const weights = Float64Array.from([...members, []], (of) =>
    of.length === 0 ? 0 : of.length === 1 ? each[of[0]!]! : each[of[0]!]! * each[of[1]!]! * both,
  )
  weights[SOMETHING_ELSE] = ELSE_ODDS * weights.reduce((a, b) => a + b, 0)
  return normalise(weights)
}

export function normalise(weights: Float64Array): Float64Array {
  let sum = 0
  for (const w of weights) sum += w
  if (sum > 0) for (let i = 0; i < weights.length; i++) weights[i]! /= sum
  return weights
}

/**
 * Bayes over all hypotheses: what was seen is independent given the faults. A claim weighs by its reliability r:
 * r·P(outcome | faults) + (1 − r)/outcomes.
 * @throws RangeError for a test or an outcome that is not in the list
 */
export function posterior(prior: Float64Array, evidence: readonly Evidence[]): Float64Array {
  const odds = Float64Array.from(prior)
  for (const seen of evidence) {
    const told = chanceOf(seen)
    for (let h = 0; h < odds.length; h++) odds[h]! *= told(h)
    normalise(odds)
  }
  return odds
}

/** Chance of what was seen, by hypothesis. */
function chanceOf(seen: Evidence): (h: number) => number {
  const test = testOf(seen.test)
  const o = test.outcomes.indexOf(seen.outcome)
  if (o < 0) throw new RangeError(`“${seen.outcome}” is no outcome of “${seen.test}”`)
  const row = likelihood(test)[o]!
  const left = seen.mended?.length ? leftOf(seen.mended) : null
  const r = seen.reliability ?? 1
  const blur = (1 - r) / test.outcomes.length
  return (h) => r * row[left ? left[h]! : h]! + blur
}

/** Chance of what was seen, given the odds over the board as it came in. */
export function expected(odds: Float64Array, seen: Evidence): number {
  const told = chanceOf(seen)
  return odds.reduce((sum, p, h) => sum + p * told(h), 0)
}

/** Chance that a fault somebody here mended had been there (bench default). */
const MENDED_RIGHTLY = 0.9

/** Odds over the board as it came in, told that these faults were found and mended. */
export function withMends(odds: Float64Array, mended: readonly FaultId[]): Float64Array {
  const told = Float64Array.from(odds)
  for (const id of mended) {
    const i = numbers.get(id)!
    for (let h = 0; h < told.length; h++)
      told[h]! *= members[h]?.includes(i) ? MENDED_RIGHTLY : 1 - MENDED_RIGHTLY
  }
  return normalise(told)
}

/** The odds of how the board stands now, when these faults are mended. */
export function standing(odds: Float64Array, mended: readonly FaultId[]): Float64Array {
  if (mended.length === 0) return odds
  const now = new Float64Array(odds.length)
  leftOf(mended).forEach((left, h) => (now[left]! += odds[h]!))
  return now
}

/** Chance that each fault is there, in the order of `faultIds`. */
export function faultOdds(odds: Float64Array): Float64Array {
  const each = new Float64Array(N)
  for (let h = 0; h < members.length; h++) for (const i of members[h]!) each[i]! += odds[h]!
  return each
}
