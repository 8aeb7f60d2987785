/** Minutes that were expected, and that it took. */
export interface Took {
  readonly expected: number
  readonly took: number
}

export interface Factor {
  readonly n: number
  /** Time by the record, for one that is expected; 1 without a record. */
  readonly factor: number
  /** Where it lies with 80 %. */
  readonly low: number
  readonly high: number
  /** How far single jobs scatter: standard deviation of the logarithm. */
  readonly scatter: number
}

/** How far a shop’s jobs are off on average, and how far each scatters, before anything is known (bench defaults). */
const OFF = 0.4
const SCATTER = 0.5
/** What the scatter before is worth, jobs. */
const WORTH = 10
const Z80 = 1.2816

/**
 * How long jobs take against what was expected. Logarithms of the ratios are taken as normal about one mean m ~ N(0, 0.4²); the
 * scatter is that of the record pooled with the default (worth ten jobs). m | record ~ N(Σr·s⁻²/(n·s⁻² + 0.4⁻²), 1/(n·s⁻² + 0.4⁻²)); the
 * factor is e^m, so that a short record changes little.
 */
export function timeFactor(jobs: readonly Took[]): Factor {
  if (jobs.some(({ expected, took }) => !(expected > 0 && took > 0)))
    throw new RangeError('minutes must be above zero')
  const ratios = jobs.map(({ expected, took }) => Math.log(took / expected))
  const n = ratios.length
  const mean = n === 0 ? 0 : ratios.reduce((a, b) => a + b, 0) / n
  const squares = ratios.reduce((sum, r) => sum + (r - mean) ** 2, 0)
  const variance = (squares + WORTH * SCATTER ** 2) / (Math.max(0, n - 1) + WORTH)
  const precision = n / variance + 1 / OFF ** 2
  const m = (n * mean) / variance / precision
  const sd = Math.sqrt(1 / precision)
  return {
    n,
    factor: Math.exp(m),
    low: Math.exp(m - Z80 * sd),
    high: Math.exp(m + Z80 * sd),
    scatter: Math.sqrt(variance),
  }
}

/** How long jobs take, in a sentence. */
export function sayFactor({ n, factor }: Factor): string {
  const off = Math.round(Math.abs(factor - 1) * 100)
  const jobs = n === 1 ? 'one job' : `${n} jobs`
  return off === 0
    ? `By ${jobs} of the record, work takes what is agreed.`
    : `By ${jobs} of the record, work takes ${off} % ${factor > 1 ? 'longer' : 'less'} than agreed, and is reckoned so.`
}
