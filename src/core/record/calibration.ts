import betaQuantile from '@stdlib/stats-base-dists-beta-quantile'

/** Odds that were said, and whether it came so. */
export interface Said {
  readonly odds: number
  readonly came: boolean
}

/** Odds as they are said, logit, made into what comes true: a + b · logit. */
export interface Correction {
  readonly a: number
  readonly b: number
}

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
const logit = (p: number) => Math.log(p / (1 - p))
const logistic = (x: number) => 1 / (1 + Math.exp(-x))
const inside = (p: number) => Math.min(1 - LEAST, Math.max(LEAST, p))

/** How far a person or a model is off before anything is known of it: standard deviations of a round 0 and of b round 1 (bench defaults). */
const SHIFT = 0.7
const SLOPE = 0.4
/** Where Newton’s steps end. */
const STILL = 1e-10

/**
 * The correction that odds need, by logistic recalibration (Cox 1958): P(came) = σ(a + b·logit(said)), the likeliest a and b
 * under normal priors round 0 and 1, so that a short record corrects little. Newton’s method; the posterior is concave, halved steps keep it climbing.
 */
export function correctionOf(said: readonly Said[]): Correction {
  const xs = Float64Array.from(said, ({ odds }) => logit(inside(odds)))
  const penalty = (a: number, b: number) =>
    said.reduce(
      (sum, { came }, i) => {
        const eta = a + b * xs[i]!
        return sum + (came ? Math.log1p(Math.exp(-eta)) : Math.log1p(Math.exp(eta)))
      },
      a ** 2 / (2 * SHIFT ** 2) + (b - 1) ** 2 / (2 * SLOPE ** 2),
    )
  let a = 0
  let b = 1
  let now = penalty(a, b)
  for (let step = 0; step < 100; step++) {
    let [ga, gb] = [a / SHIFT ** 2, (b - 1) / SLOPE ** 2]
    let [haa, hab, hbb] = [1 / SHIFT ** 2, 0, 1 / SLOPE ** 2]
    said.forEach(({ came }, i) => {
      const x = xs[i]!
      const p = logistic(a + b * x)
      const w = p * (1 - p)
      ga += p - Number(came)
      gb += (p - Number(came)) * x
      haa += w
      hab += w * x
      hbb += w * x * x
    })
    const det = haa * hbb - hab * hab
    const [da, db] = [(hbb * ga - hab * gb) / det, (haa * gb - hab * ga) / det]
    let share = 1
    while (share > 1e-6 && penalty(a - share * da, b - share * db) > now) share /= 2
    a -= share * da
    b -= share * db
    const next = penalty(a, b)
    if (now - next < STILL) break
    now = next
  }
  return { a, b }
}

/** Odds as they come true, by the record. */
export const corrected = (odds: number, { a, b }: Correction): number => logistic(a + b * logit(inside(odds)))

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

/** What the record says of odds, in one sentence. */
export function sayCalibration(
  { n, few, correction }: Calibration,
  percent: (share: number) => string,
): string {
  if (n === 0) return 'nothing said yet that has come true or not'
  if (few) return `${n} so far: too few to tell, from ${ENOUGH} on it is reckoned`
  const high = corrected(0.8, correction)
  return `what is said as ${percent(0.8)} comes true in ${percent(high)}, what is said as ${percent(0.3)} in ${percent(corrected(0.3, correction))}`
}
