import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inCircle, normalCdf, wilson } from './normal'

const density = (z: number) => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)

/** Simpson's rule, the oracle beside the closed forms. */
function integral(f: (x: number) => number, from: number, to: number, steps = 2000): number {
  const h = (to - from) / steps
  let sum = f(from) + f(to)
  for (let i = 1; i < steps; i++) sum += f(from + i * h) * (i % 2 === 1 ? 4 : 2)
  return (sum * h) / 3
}

/** P(inside) by slicing the circle: the chance of each chord. */
const slicedCircle = (offset: number, radius: number, sigma: number) =>
  integral(
    (x) => {
      const half = Math.sqrt(Math.max(0, radius * radius - x * x))
      return (density((x - offset) / sigma) / sigma) * (2 * normalCdf(half / sigma) - 1)
    },
    -radius,
    radius,
    4000,
  )

describe('normalCdf', () => {
  it('equals the integral of the density', () => {
    for (const z of [-4, -2.5, -1, -0.3, 0, 0.7, 1.96, 3.3])
      expect(normalCdf(z)).toBeCloseTo(0.5 + integral(density, 0, z), 6)
  })
  it('is symmetric and rises', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (z, step) => {
          expect(normalCdf(z) + normalCdf(-z)).toBeCloseTo(1, 6)
          expect(normalCdf(z + step)).toBeGreaterThanOrEqual(normalCdf(z) - 3e-7)
        },
      ),
    )
  })
})

describe('inCircle', () => {
  it('equals the sliced circle', () => {
    for (const [offset, radius, sigma] of [
      [0, 0.25, 0.05],
      [0.14, 0.25, 0.058],
      [0.3, 0.25, 0.05],
      [0.5, 0.35, 0.058],
      [0.05, 0.1, 0.2],
    ] as const)
      expect(inCircle(offset, radius, sigma)).toBeCloseTo(slicedCircle(offset, radius, sigma), 4)
  })
  it('for a centred aim is 1 − exp(−r²/2σ²)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        (r, s) => {
          expect(inCircle(0, r, s)).toBeCloseTo(1 - Math.exp((-r * r) / (2 * s * s)), 9)
        },
      ),
    )
  })
  it('falls with the offset, rises with the radius, stays a probability', () => {
    const mm = fc.double({ min: 0, max: 2, noNaN: true })
    fc.assert(
      fc.property(mm, mm, mm, (offset, radius, more) => {
        const p = inCircle(offset, radius, 0.06)
        expect(p).toBeGreaterThanOrEqual(0)
        expect(p).toBeLessThanOrEqual(1)
        expect(inCircle(offset + more, radius, 0.06)).toBeLessThanOrEqual(p + 1e-6)
        expect(inCircle(offset, radius + more, 0.06)).toBeGreaterThanOrEqual(p - 1e-6)
      }),
    )
  })
  it('refuses a scatter that is not positive', () => {
    expect(() => inCircle(0.1, 0.2, 0)).toThrow(RangeError)
  })
})

describe('wilson', () => {
  it('holds the share and narrows with the number', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.integer({ min: 1, max: 5000 }), (p, n) => {
        const few = wilson(p, n)
        const many = wilson(p, n * 4)
        expect(few.low).toBeLessThanOrEqual(p + 1e-12)
        expect(few.high).toBeGreaterThanOrEqual(p - 1e-12)
        expect(many.high - many.low).toBeLessThanOrEqual(few.high - few.low + 1e-12)
      }),
    )
  })
})
