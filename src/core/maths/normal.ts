import cdf from '@stdlib/stats-base-dists-normal-cdf'

/** Standard normal distribution function. */
export const normalCdf: (z: number) => number = cdf.factory(0, 1)

/**
 * Chance that a point placed with equal Gaussian scatter in x and y falls inside a circle.
 *
 * @param offset distance of the aim from the circle's centre, mm, ≥ 0
 * @param radius of the circle, mm, ≥ 0
 * @param sigma scatter in each direction, mm, > 0
 * @returns probability; one minus the Marcum Q function of order 1
 * @throws RangeError if sigma is not positive
 * Source: Rice distribution (Rice 1945), summed as a Poisson mixture of chi-square terms.
 */
export function inCircle(offset: number, radius: number, sigma: number): number {
  if (!(sigma > 0)) throw new RangeError(`sigma must be > 0 mm, got ${sigma}`)
  if (radius <= 0) return 0
  const lambda = (offset * offset) / (2 * sigma * sigma)
  const r = (radius * radius) / (2 * sigma * sigma)
  if (lambda > 300) return normalCdf((radius - offset) / sigma)
  let weight = Math.exp(-lambda)
  let term = Math.exp(-r)
  let below = 1 - term
  let sum = 0
  let seen = 0
  for (let n = 0; n < 2000; n++) {
    sum += weight * below
    seen += weight
    if (n > lambda && 1 - seen < 1e-12) break
    weight *= lambda / (n + 1)
    term *= r / (n + 1)
    below = Math.max(0, below - term)
  }
  return Math.min(1, Math.max(0, sum))
}

/**
 * Wilson score interval of a proportion.
 * @param p observed share, @param n number of trials, @param z standard normal quantile (1.96 for 95 %)
 * Source: Wilson (1927).
 */
export function wilson(p: number, n: number, z = 1.96): { low: number; high: number } {
  const z2 = (z * z) / n
  const centre = (p + z2 / 2) / (1 + z2)
  const half = (z / (1 + z2)) * Math.sqrt((p * (1 - p)) / n + z2 / (4 * n))
  return { low: Math.max(0, centre - half), high: Math.min(1, centre + half) }
}
