import betaQuantile from '@stdlib/stats-base-dists-beta-quantile'
import { LEAST_SAID, MOST_SAID, percent } from '../maths/percent'

/** A bound that is met to the last figure is met. */
const ROUNDING = 1e-12

/** Starts to make: n ≥ ln(1−c)/ln(1−p) clean ones show with certainty c that a fault that spoils a share p of starts is gone. */
export function coldStartsFor(certainty: number, faultShare: number): number {
  if (!(certainty > 0 && certainty < 1 && faultShare > 0 && faultShare < 1))
    throw new RangeError('certainty and share must lie between 0 and 1')
  return Math.ceil(Math.log(1 - certainty) / Math.log(1 - faultShare) - ROUNDING)
}

/**
 * Share of starts that may fail at the most, with this certainty: Clopper and Pearson’s exact upper bound, the share p at which
 * k failures or fewer in n starts would be as rare as 1 − c, which is the quantile c of Beta(k + 1, n − k). One where every start failed, or none was made.
 */
export function mostFailing(starts: number, failures: number, certainty: number): number {
  if (!(Number.isInteger(starts) && starts >= 0 && Number.isInteger(failures) && failures >= 0))
    throw new RangeError('starts and failures must be whole numbers, none negative')
  if (failures > starts) throw new RangeError('more failures than starts')
  if (!(certainty > 0 && certainty < 1)) throw new RangeError('certainty must lie between 0 and 1')
  if (failures === starts) return 1
  return betaQuantile(certainty, failures + 1, starts - failures)
}

/** Clean starts still to be made until at most this share can fail, with this certainty. */
export function moreStarts(starts: number, failures: number, certainty: number, share: number): number {
  if (!(share > 0 && share < 1)) throw new RangeError('share must lie between 0 and 1')
  const enough = (more: number) => mostFailing(starts + more, failures, certainty) <= share + ROUNDING
  if (enough(0)) return 0
  let high = 1
  while (!enough(high)) high *= 2
  let low = high / 2
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (enough(middle)) high = middle
    else low = middle
  }
  return high
}

/** How sure the shop wants to be that a fault that spoils a share of starts is gone, and the share (bench default). */
export const CERTAIN = 0.9
export const shareOf = (intermittent: boolean): number => (intermittent ? 0.2 : 0.5)

/** Starts since the last change that could have undone them. */
export interface StartsCounted {
  readonly made: number
  readonly failed: number
}

/** What the starts so far prove, in a few words. */
export function sayStarts({ made, failed }: StartsCounted, certainty = CERTAIN): string {
  if (made === 0) return 'none made yet'
  if (failed === made) return `none of ${made} came up`
  const came = `${made - failed} of ${made} came up`
  const most = mostFailing(made, failed, certainty)
  if (most > MOST_SAID) return `${came}: how many starts fail at the most is not known yet`
  const share = most < LEAST_SAID ? 'less than 1 %' : `at most ${percent(most)}`
  return `${came}: with ${percent(certainty)} certainty ${share} of starts fail`
}
