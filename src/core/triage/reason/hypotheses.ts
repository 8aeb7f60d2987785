import { benchTests } from '../model/bench-tests'
import type { BenchTest } from '../model/bench-test'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import { stages } from '../model/stage'
import type { UnknownStage } from '../model/start-model'

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

/** Index of the pair of two faults by number. */
export const pairIndex = (a: number, b: number): number => {
  const [i, j] = a < b ? [a, b] : [b, a]
  return 1 + N + i * N - (i * (i + 1)) / 2 + (j - i - 1)
}

/** Number of a fault among `faultIds`. */
export const numbers = new Map(faultIds.map((id, i) => [id, i]))
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
