import type { HistoryItem } from '../../board/history-item'
import { benchTests } from '../model/bench-tests'
import type { BenchTest } from '../model/bench-test'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import type { Fault } from '../model/fault'
import { chanceToTake } from '../model/repair'
import { stages } from '../model/stage'

/** What was done to the board that a fault hangs on: a repair meant for it, or work that can have made it. */
export interface Change {
  readonly is: 'mended' | 'made'
  readonly fault: FaultId
}

/** One thing that was seen: a test, its outcome, and how many of the changes had been made by then. */
export interface Evidence {
  readonly test: string
  readonly outcome: string
  readonly after?: number
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

/** For each hypothesis the one it becomes when a fault is gone, or when one has come to it; two are never made three. */
const becomes = (change: Change): Int32Array => {
  const key = `${change.is} ${change.fault}`
  const known = turned.get(key)
  if (known) return known
  const i = numbers.get(change.fault)!
  const to = Int32Array.from([...members, null], (of, h) => {
    if (of === null) return SOMETHING_ELSE
    if (change.is === 'made')
      return of.includes(i) || of.length === 2 ? h : of.length === 0 ? 1 + i : pairIndex(of[0]!, i)
    if (!of.includes(i)) return h
    return of.length === 1 ? 0 : 1 + of.find((other) => other !== i)!
  })
  turned.set(key, to)
  return to
}
const turned = new Map<string, Int32Array>()

/** Changes of which it is open whether they took; those before them did what they were meant to. */
const MOST_OPEN = 6

/** Which of the changes may have failed: each doubles the cases. */
const openFrom = (changes: readonly Change[]): number => Math.max(0, changes.length - MOST_OPEN)
/** Cases of which changes took: bit i for the change `openFrom` + i. */
const casesOf = (changes: readonly Change[]): number => 1 << (changes.length - openFrom(changes))

/** What each hypothesis of the board as it came has become after so many changes, in one case; null for itself. */
function became(changes: readonly Change[], took: number, after: number): Int32Array | null {
  let to: Int32Array | null = null
  const from = openFrom(changes)
  for (let i = 0; i < after; i++) {
    const change = changes[i]!
    if (i >= from ? (took & (1 << (i - from))) === 0 : change.is === 'made') continue
    const step = becomes(change)
    to = to ? to.map((h) => step[h]!) : step
  }
  return to
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
 * Bayes over all hypotheses of the board as it came, and over which of the changes took: a repair succeeds with its
 * chance, work makes a fault with its chance (`chanceToTake`), once and for all that is seen after it.
 * What was seen is independent given both. A claim weighs by its reliability r: r·P(outcome | faults) + (1 − r)/outcomes.
 *
 * @returns a row of hypotheses for each case of which changes took; one row where there were none
 * @throws RangeError for a test or an outcome that is not in the list
 */
export function posterior(
  prior: Float64Array,
  evidence: readonly Evidence[],
  changes: readonly Change[] = [],
): Float64Array {
  const width = prior.length
  const from = openFrom(changes)
  const odds = new Float64Array(casesOf(changes) * width)
  for (let took = 0; took < odds.length / width; took++) {
    let weight = 1
    changes.slice(from).forEach((change, i) => {
      const chance = chanceToTake(change)
      weight *= took & (1 << i) ? chance : 1 - chance
    })
    for (let h = 0; h < width; h++) odds[took * width + h] = prior[h]! * weight
  }
  for (const seen of evidence) weigh(odds, seen, changes)
  return odds
}

/** Multiplies the odds by the chance of what was seen, or divides by it. */
function weigh(odds: Float64Array, seen: Evidence, changes: readonly Change[], without = false): void {
  const width = SOMETHING_ELSE + 1
  const chance = chanceOf(seen)
  for (let took = 0; took < odds.length / width; took++) {
    const to = became(changes, took, seen.after ?? 0)
    const row = took * width
    for (let h = 0; h < width; h++) {
      const p = chance(to ? to[h]! : h)
      odds[row + h]! *= without ? 1 / p : p
    }
  }
  normalise(odds)
}

/** The odds as they would be had one thing not been seen. */
export function without(odds: Float64Array, seen: Evidence, changes: readonly Change[]): Float64Array {
  const less = Float64Array.from(odds)
  weigh(less, seen, changes, true)
  return less
}

/** Chance of what was seen, by hypothesis of the board as it stood. */
function chanceOf(seen: Evidence): (h: number) => number {
  const test = testOf(seen.test)
  const o = test.outcomes.indexOf(seen.outcome)
  if (o < 0) throw new RangeError(`“${seen.outcome}” is no outcome of “${seen.test}”`)
  const row = likelihood(test)[o]!
  const r = seen.reliability ?? 1
  const blur = (1 - r) / test.outcomes.length
  return (h) => r * row[h]! + blur
}

/** Chance of what was seen, given the odds over the board as it came in and which changes took. */
export function expected(odds: Float64Array, seen: Evidence, changes: readonly Change[] = []): number {
  const width = SOMETHING_ELSE + 1
  const chance = chanceOf(seen)
  let sum = 0
  for (let took = 0; took < odds.length / width; took++) {
    const to = became(changes, took, seen.after ?? 0)
    for (let h = 0; h < width; h++) sum += odds[took * width + h]! * chance(to ? to[h]! : h)
  }
  return sum
}

/** Chance that a fault somebody here mended had been there (bench default). */
const MENDED_RIGHTLY = 0.9

/** Odds over the board as it came in, told that these faults were found and mended. */
export function withMends(odds: Float64Array, changes: readonly Change[]): Float64Array {
  const told = Float64Array.from(odds)
  for (const { is, fault } of new Map(changes.map((c) => [`${c.is} ${c.fault}`, c])).values()) {
    if (is !== 'mended' || changes.find((c) => c.fault === fault)!.is === 'made') continue
    const i = numbers.get(fault)!
    for (let h = 0; h < told.length; h++)
      told[h]! *= members[h]?.includes(i) ? MENDED_RIGHTLY : 1 - MENDED_RIGHTLY
  }
  return normalise(told)
}

/** The odds of how the board stands after all the changes, whichever of them took. */
export function standing(odds: Float64Array, changes: readonly Change[]): Float64Array {
  if (changes.length === 0) return odds
  const width = SOMETHING_ELSE + 1
  const now = new Float64Array(width)
  for (let took = 0; took < odds.length / width; took++) {
    const to = became(changes, took, changes.length)
    for (let h = 0; h < width; h++) now[to ? to[h]! : h]! += odds[took * width + h]!
  }
  return now
}

/** Chance that each fault is there, in the order of `faultIds`. */
export function faultOdds(odds: Float64Array): Float64Array {
  const each = new Float64Array(N)
  for (let h = 0; h < members.length; h++) for (const i of members[h]!) each[i]! += odds[h]!
  return each
}
