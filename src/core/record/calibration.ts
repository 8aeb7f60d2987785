import betaQuantile from '@stdlib/stats-base-dists-beta-quantile'
import { Matrix, solve } from 'ml-matrix'

/** Odds that were said, and whether it came so. */
export interface Said {
  readonly odds: number
  readonly came: boolean
}

/** What odds p come to: σ(a·ln p − b·ln(1 − p) + c). Right ones have 1, 1, 0. */
export type Correction = readonly [a: number, b: number, c: number]

export interface Decile {
  readonly n: number
  /** Odds said on average. */
  readonly said: number
  readonly came: number
  /** Where the true share lies with 90 %. */
  readonly low: number
  readonly high: number
}

export interface Calibration {
  readonly n: number
  /** Mean of (odds − came)²; 0 is perfect, 0.25 is what always saying one half has. Null without any. */
  readonly brier: number | null
  /** What always saying the share that came true would have had. */
  readonly brierOfShare: number | null
  /** By tenths of the odds that were said; null where none was. */
  readonly deciles: readonly (Decile | null)[]
  readonly correction: Correction
  /** Too few to say more than the single numbers. */
  readonly few: boolean
}

/** Fewer are shown one by one, and correct next to nothing (bench default). */
export const ENOUGH = 30
const LEAST = 0.005
const logistic = (x: number) => 1 / (1 + Math.exp(-x))
/** ln p, −ln(1 − p), 1; kept off certainty, of which no record can tell. */
function termsOf(odds: number): Correction {
  const p = Math.min(1 - LEAST, Math.max(LEAST, odds))
  return [Math.log(p), -Math.log(1 - p), 1]
}
const dot = (x: Correction, y: Correction) => x[0] * y[0] + x[1] * y[1] + x[2] * y[2]

const RIGHT: Correction = [1, 1, 0]
/** How far a person or a model is off before anything is known: standard deviations of a, b and c (bench defaults). */
const OFF: Correction = [0.5, 0.5, 0.7]
/** Where Newton’s steps end. */
const STILL = 1e-10

/** What speaks against a correction: the record’s negative log-likelihood and the normal priors’. */
function against(xs: readonly Correction[], said: readonly Said[], at: Correction): number {
  const prior = at.reduce((sum, v, i) => sum + (v - RIGHT[i]!) ** 2 / (2 * OFF[i]! ** 2), 0)
  return said.reduce((sum, { came }, i) => {
    const eta = dot(at, xs[i]!)
    return sum + Math.log1p(Math.exp(came ? -eta : eta))
  }, prior)
}

/**
 * The correction that odds need, by beta calibration (Kull, Silva Filho and Flach 2017): P(came) = σ(a·ln p − b·ln(1 − p) + c),
 * the likeliest a, b and c under normal priors round 1, 1 and 0, so that a short record corrects little. Newton’s method; the
 * posterior is concave, and halved steps keep it climbing.
 */
export function correctionOf(said: readonly Said[]): Correction {
  const xs = said.map(({ odds }) => termsOf(odds))
  let at = RIGHT
  let now = against(xs, said, at)
  for (let step = 0; step < 100; step++) {
    const slope = at.map((v, i) => (v - RIGHT[i]!) / OFF[i]! ** 2)
    const bend = Matrix.diag(OFF.map((sd) => 1 / sd ** 2))
    xs.forEach((x, k) => {
      const p = logistic(dot(at, x))
      for (let i = 0; i < 3; i++) {
        slope[i]! += (p - Number(said[k]!.came)) * x[i]!
        for (let j = 0; j < 3; j++) bend.set(i, j, bend.get(i, j) + p * (1 - p) * x[i]! * x[j]!)
      }
    })
    const full = solve(bend, Matrix.columnVector(slope)).to1DArray()
    const stepped = (share: number) => at.map((v, i) => v - share * full[i]!) as unknown as Correction
    let share = 1
    while (share > 1e-6 && against(xs, said, stepped(share)) > now) share /= 2
    at = stepped(share)
    const next = against(xs, said, at)
    if (now - next < STILL) break
    now = next
  }
  return at
}

/** Odds as they come true, by the record. */
export const corrected = (odds: number, by: Correction): number => logistic(dot(by, termsOf(odds)))

const CERTAIN = 0.9
/** Where a share lies with 90 %, by k of n: Clopper and Pearson’s exact bounds. */
export function shareBounds(k: number, n: number): readonly [low: number, high: number] {
  const tail = (1 - CERTAIN) / 2
  return [k === 0 ? 0 : betaQuantile(tail, k, n - k + 1), k === n ? 1 : betaQuantile(1 - tail, k + 1, n - k)]
}

/** Odds that were said against what came of them: Brier’s score, tenths, and the correction they need. */
export function calibrate(said: readonly Said[]): Calibration {
  const tenths = Array.from({ length: 10 }, (): Said[] => [])
  for (const one of said) {
    if (!(one.odds >= 0 && one.odds <= 1)) throw new RangeError('odds must lie from 0 to 1')
    tenths[Math.min(9, Math.floor(one.odds * 10 + 1e-9))]!.push(one)
  }
  const n = said.length
  const mean = (of: readonly Said[], value: (one: Said) => number) =>
    of.reduce((sum, one) => sum + value(one), 0) / of.length
  const came = (one: Said) => Number(one.came)
  const share = n === 0 ? 0 : mean(said, came)
  return {
    n,
    brier: n === 0 ? null : mean(said, (one) => (one.odds - came(one)) ** 2),
    brierOfShare: n === 0 ? null : share * (1 - share),
    deciles: tenths.map((of) => {
      if (of.length === 0) return null
      const k = of.filter((one) => one.came).length
      const [low, high] = shareBounds(k, of.length)
      return { n: of.length, said: mean(of, (one) => one.odds), came: k / of.length, low, high }
    }),
    correction: correctionOf(said),
    few: n < ENOUGH,
  }
}

/** The tenth that holds a share of all odds that were said, from below. */
function tenthAt({ deciles, n }: Calibration, share: number): Decile | null {
  let seen = 0
  return deciles.find((tenth) => (seen += tenth?.n ?? 0) >= share * n && tenth !== null) ?? null
}

/** What the record says of odds, in one sentence: of those in the middle of the upper and of the lower half that were said. */
export function sayCalibration(of: Calibration, percent: (share: number) => string): string {
  const { n, few, correction } = of
  const [high, low] = [tenthAt(of, 0.75), tenthAt(of, 0.25)]
  if (!high || !low) return 'nothing said yet that has come true or not'
  if (few) return `${n} so far: too few to tell, from ${ENOUGH} on it is reckoned`
  const comes = ({ said }: Decile) => percent(corrected(said, correction))
  const says = `what is said as ${percent(high.said)} comes true in ${comes(high)}`
  return low === high ? says : `${says}, what is said as ${percent(low.said)} in ${comes(low)}`
}
