import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from './between.testing'
import { betaCdf, betaQuantile } from './beta'

const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k)
const share = between(0.001, 0.999)

describe('beta distribution', () => {
  it('of whole numbers is a sum of binomial terms', () => {
    fc.assert(
      fc.property(share, fc.integer({ min: 1, max: 25 }), fc.integer({ min: 1, max: 25 }), (x, a, b) => {
        const n = a + b - 1
        let sum = 0
        for (let j = a; j <= n; j++) sum += choose(n, j) * x ** j * (1 - x) ** (n - j)
        expect(betaCdf(x, a, b)).toBeCloseTo(sum, 8)
      }),
    )
  })
  it('rises, and its quantile is its inverse', () => {
    const parameter = between(1, 300)
    fc.assert(
      fc.property(share, parameter, parameter, (p, a, b) => {
        expect(betaCdf(betaQuantile(p, a, b), a, b)).toBeCloseTo(p, 3)
      }),
    )
  })
  it('has its ends, and refuses what is no shape', () => {
    expect([betaCdf(0, 2, 3), betaCdf(1, 2, 3)]).toEqual([0, 1])
    expect(() => betaCdf(0.5, 0, 1)).toThrow(RangeError)
  })
})
