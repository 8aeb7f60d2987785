/** Natural logarithm of the gamma function, x > 0; error below 2e-10. Source: Lanczos (1964), after Press et al., Numerical Recipes (1992), section 6.1. */
function logGamma(x: number): number {
  const c = [
    76.18009172947146, -86.50532032941677, 24.01409824083091, -1.231739572450155, 0.001208650973866179,
    -0.000005395239384953,
  ]
  const t = x + 5.5
  let sum = 1.000000000190015
  c.forEach((value, i) => (sum += value / (x + 1 + i)))
  return -t + (x + 0.5) * Math.log(t) + Math.log((2.5066282746310005 * sum) / x)
}

/** Continued fraction of the incomplete beta function (modified Lentz). Source: Numerical Recipes (1992), section 6.4. */
function fraction(a: number, b: number, x: number): number {
  const tiny = 1e-300
  let c = 1
  let d = 1 - ((a + b) * x) / (a + 1)
  d = 1 / (Math.abs(d) < tiny ? tiny : d)
  let h = d
  for (let m = 1; m < 400; m++) {
    for (const term of [
      (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)),
      (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1)),
    ]) {
      d = 1 + term * d
      d = 1 / (Math.abs(d) < tiny ? tiny : d)
      c = 1 + term / c
      if (Math.abs(c) < tiny) c = tiny
      h *= d * c
    }
    if (Math.abs(d * c - 1) < 1e-14) break
  }
  return h
}

/**
 * Beta distribution function: chance that a Beta(a, b) share is at most x.
 * @throws RangeError unless a and b are positive
 */
export function betaCdf(x: number, a: number, b: number): number {
  if (!(a > 0 && b > 0)) throw new RangeError(`a and b must be > 0, got ${a} and ${b}`)
  if (x <= 0) return 0
  if (x >= 1) return 1
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x))
  return x < (a + 1) / (a + b + 2) ? (front * fraction(a, b, x)) / a : 1 - (front * fraction(b, a, 1 - x)) / b
}

/** The share below which a Beta(a, b) lies with chance p; by bisection to 1e-10. */
export function betaQuantile(p: number, a: number, b: number): number {
  let [low, high] = [0, 1]
  for (let i = 0; i < 60 && high - low > 1e-10; i++) {
    const mid = (low + high) / 2
    if (betaCdf(mid, a, b) < p) low = mid
    else high = mid
  }
  return (low + high) / 2
}
