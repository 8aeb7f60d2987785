import { percent } from '../../maths/percent'
import { wilson } from '../../maths/normal'

/** What a contact pulled out of a donor socket for practice came as. */
export const pullResults = ['whole', 'bent', 'broken'] as const
export type PullResult = (typeof pullResults)[number]
export type Pulls = Readonly<Record<PullResult, number>>

export const noPulls: Pulls = { whole: 0, bent: 0, broken: 0 }

/** z of an interval that holds the truth in nine of ten. */
const NINE_OF_TEN = 1.645

/** What the pulls say of the next: how many came whole, and between what the chance of another lies. */
export function sayPulls({ whole, bent, broken }: Pulls): string {
  const n = whole + bent + broken
  if (n === 0)
    return 'None yet. Pull a few from the donor first: that tells whether this heat lets a contact go, before the board has to stand it.'
  const { low, high } = wilson(whole / n, n, NINE_OF_TEN)
  return `${whole} of ${n} came whole; the next does in ${percent(low)} to ${percent(high)}.`
}
