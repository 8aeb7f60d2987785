import { coarse, runHeat } from './heat-run'
import type { HeatRun } from './heat-run'
import type { HeatStep, SetUp } from './set-up'

/** A thermocouple, read at some second of a recipe. */
export interface HeatReading {
  readonly at: 'joint' | 'body' | 'board'
  readonly s: number
  readonly c: number
}

export interface HeatFit {
  readonly air: number
  readonly preheater: number
  /** How far each may still be off, as a ratio: 1.3 is a third either way. */
  readonly airWithin: number
  readonly preheaterWithin: number
  /** How far the readings are from the corrected recipe, K (root mean square). */
  readonly offK: number
  /** What the readings leave open, and what is odd about them. */
  readonly open: readonly string[]
}

/** How well figures of air and preheater are known before any reading (standard deviation of the logarithm), and a reading, K. */
const PRIOR = 0.3
const READS_K = 4
/** From here a figure counts as settled by the readings: half of what was not known is gone. */
const SETTLED = 0.5 * PRIOR

const shown = (run: HeatRun, { at, s }: HeatReading): number => {
  const of = { joint: run.jointC, body: run.bodyC, board: run.boardC }[at]
  const i = run.s.findIndex((t) => t >= s)
  if (i < 0) return of.at(-1)!
  if (i === 0) return of[0]!
  const [from, to] = [run.s[i - 1]!, run.s[i]!]
  return of[i - 1]! + ((of[i]! - of[i - 1]!) * (s - from)) / (to - from)
}

/**
 * Corrects air and preheater by thermocouple readings: least squares over both logarithms with their priors (Gauss–Newton,
 * derivatives by differences). One reading cannot settle both, and is said not to.
 */
export function fitHeat(setUp: SetUp, steps: readonly HeatStep[], readings: readonly HeatReading[]): HeatFit {
  const modelled = ([air, preheater]: readonly [number, number]) => {
    const run = runHeat({ ...setUp, air: Math.exp(air), preheater: Math.exp(preheater) }, steps, coarse)
    return readings.map((r) => shown(run, r))
  }
  let x: readonly [number, number] = [Math.log(setUp.air), Math.log(setUp.preheater)]
  const centre = x
  let normal = [
    [1, 0],
    [0, 1],
  ] as [[number, number], [number, number]]
  let offK = 0
  for (let round = 0; round < 8; round++) {
    const is = modelled(x)
    const by = [modelled([x[0] + 0.02, x[1]]), modelled([x[0], x[1] + 0.02])]
    const slope = by.map((moved) => moved.map((v, i) => (v - is[i]!) / 0.02))
    const off = readings.map((r, i) => r.c - is[i]!)
    offK = Math.sqrt(off.reduce((sum, v) => sum + v * v, 0) / Math.max(1, off.length))
    const dot = (a: readonly number[], b: readonly number[]) =>
      a.reduce((sum, v, i) => sum + v * b[i]!, 0) / READS_K ** 2
    const [s0, s1] = [slope[0]!, slope[1]!]
    normal = [
      [dot(s0, s0) + 1 / PRIOR ** 2, dot(s0, s1)],
      [dot(s0, s1), dot(s1, s1) + 1 / PRIOR ** 2],
    ]
    const right = [
      dot(s0, off) - (x[0] - centre[0]) / PRIOR ** 2,
      dot(s1, off) - (x[1] - centre[1]) / PRIOR ** 2,
    ]
    const det = normal[0][0] * normal[1][1] - normal[0][1] * normal[1][0]
    const move = [
      (normal[1][1] * right[0]! - normal[0][1] * right[1]!) / det,
      (normal[0][0] * right[1]! - normal[1][0] * right[0]!) / det,
    ].map((v) => Math.max(-0.5, Math.min(0.5, v)))
    x = [x[0] + move[0]!, x[1] + move[1]!]
    if (Math.hypot(...move) < 1e-4) break
  }
  const det = normal[0][0] * normal[1][1] - normal[0][1] * normal[1][0]
  const [airSd, preheaterSd] = [Math.sqrt(normal[1][1] / det), Math.sqrt(normal[0][0] / det)]
  const uses = { air: steps.some((s) => s.airC !== null), preheater: steps.some((s) => s.preheatWm2 > 0) }
  const lasts = steps.reduce((sum, step) => sum + step.seconds, 0)
  const hottest = Math.max(setUp.roomC, ...steps.map((s) => s.airC ?? setUp.roomC))
  return {
    air: Math.exp(x[0]),
    preheater: Math.exp(x[1]),
    airWithin: Math.exp(airSd),
    preheaterWithin: Math.exp(preheaterSd),
    offK,
    open: [
      ...readings.flatMap((r) =>
        r.s > lasts
          ? [`${r.c} °C was read at ${r.s} s, and the recipe ends at ${lasts} s: how did it go on?`]
          : [],
      ),
      ...readings.flatMap((r) =>
        uses.air && !uses.preheater && r.c > hottest
          ? [`${r.c} °C at ${r.s} s is hotter than the air that heats it (${hottest} °C): read it again`]
          : r.c < setUp.roomC - 5
            ? [`${r.c} °C at ${r.s} s is colder than the room: read it again`]
            : [],
      ),
      ...(readings.length > 0 && offK > 3 * READS_K
        ? [
            `the readings stay ${Math.round(offK)} K from any recipe: is the thermocouple on the ${readings[0]!.at}?`,
          ]
        : []),
      ...(uses.air && airSd > SETTLED
        ? ['what the air gives is not settled: read during the air alone']
        : []),
      ...(uses.preheater && preheaterSd > SETTLED
        ? ['what the preheater gives is not settled: read before the air comes on']
        : []),
    ],
  }
}
