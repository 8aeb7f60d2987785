import { lifeUsed, pushFor, snapOdds } from '../contact/bend'
import { contactVerdict } from '../contact/contact-force'
import type { PushQuestion } from './push'
import { slipOdds } from './technique'

/**
 * Exhaustive search: every sequence of outcomes, stroke after stroke, without a grid of life; the offset on the same
 * grid of 0.02 mm as the programme. Exponential in the strokes left, so for few of them.
 * @returns worth of the next stroke over stopping
 */
export function exhaustive(q: PushQuestion, strokes: number): number {
  const shares = [
    [0.05, 0.25],
    [0.25, 0.3],
    [0.45, 0.25],
    [0.7, 0.12],
    [-0.25, 0.08],
  ] as const
  const round = (mm: number) => Math.min(50, Math.round(Math.abs(mm) / 0.02)) * 0.02
  const stop = (r: number) => {
    const makes =
      r < 1e-9
        ? 1
        : contactVerdict(
            q.isHeight ? { kind: 'low', heightMm: -r } : { kind: 'lean', leanMm: [r, 0] },
            q.kind,
          ).makesContact
    if (q.shortStands && r > 0.6 * q.residualMm) return 0
    return q.worthMinor * (q.runsLost + makes * (q.runsGood - q.runsLost))
  }
  const value = (r: number, life: number, n: number): number =>
    n === 0 || r < 1e-9 ? stop(r) : Math.max(stop(r), push(r, life, n))
  const push = (r: number, life: number, n: number): number => {
    const after = life + lifeUsed(pushFor(r).curvature)
    const [metal, slip] = [snapOdds(life, after), slipOdds[q.technique]]
    const factor = q.snapFactor ?? 1
    const snaps = 1 - (1 - Math.min(1, metal * factor)) * (1 - Math.min(1, slip * factor))
    const then = shares.reduce((sum, [share, odds]) => sum + odds * value(round(r * share), after, n - 1), 0)
    return -q.strokeMinor + (1 - snaps) * then + snaps * (q.worthMinor * q.runsLost - q.lossMinor)
  }
  const r = round(q.residualMm)
  return r < 1e-9 ? 0 : push(r, q.lifeUsed, strokes) - stop(r)
}

/** All that can be won or lost by it, minor units. */
export const stakes = (q: PushQuestion): number =>
  q.worthMinor * (q.runsGood - q.runsLost) + q.lossMinor + q.strokeMinor
