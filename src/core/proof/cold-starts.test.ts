import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seeded } from '../maths/seeded'
import { CERTAIN, coldStartsFor, moreStarts, mostFailing, sayStarts } from './cold-starts'

const share = fc.double({ min: 0.05, max: 0.95, noNaN: true })
const counted = fc
  .tuple(fc.integer({ min: 1, max: 40 }), fc.nat(40))
  .map(([n, k]) => [n, Math.min(k, n)] as const)

/** P(X ≤ k), by adding up every term from Pascal’s triangle. */
function plainAtMost(k: number, n: number, p: number): number {
  let row = [1]
  for (let i = 0; i < n; i++) row = [...row, 0].map((v, j) => v + (row[j - 1] ?? 0))
  return row.slice(0, k + 1).reduce((sum, c, j) => sum + c * p ** j * (1 - p) ** (n - j), 0)
}

describe('cold starts', () => {
  it('are the least number that makes a lucky run rare enough', () => {
    fc.assert(
      fc.property(share, share, (certainty, fault) => {
        const n = coldStartsFor(certainty, fault)
        expect((1 - fault) ** n).toBeLessThanOrEqual(1 - certainty + 1e-12)
        if (n > 1) expect((1 - fault) ** (n - 1)).toBeGreaterThan(1 - certainty - 1e-12)
      }),
    )
    expect(coldStartsFor(0.9, 0.5)).toBe(4)
    expect(coldStartsFor(0.75, 0.5)).toBe(2)
    for (const [certainty, fault] of [
      [1, 0.5],
      [0, 0.5],
      [0.9, 0],
      [0.9, 1],
    ] as const)
      expect(() => coldStartsFor(certainty, fault)).toThrow('certainty and share must lie between 0 and 1')
  })
  it('bound the share that fails exactly: at the bound, so few failures are as rare as they may be', () => {
    fc.assert(
      fc.property(counted, share, ([n, k], certainty) => {
        const most = mostFailing(n, k, certainty)
        expect(most).toBeGreaterThan(0)
        expect(most).toBeLessThanOrEqual(1)
        if (k < n) expect(plainAtMost(k, n, most)).toBeCloseTo(1 - certainty, 8)
        else expect(most).toBe(1)
      }),
    )
    // Tables: none of 22 at 90 %, none of 59 at 95 %, one of 10 at 95 %, five of 50 at 97.5 %.
    expect(mostFailing(22, 0, 0.9)).toBeCloseTo(0.0994, 4)
    expect(mostFailing(59, 0, 0.95)).toBeCloseTo(0.0495, 4)
    expect(mostFailing(10, 1, 0.95)).toBeCloseTo(0.3942, 4)
    expect(mostFailing(50, 5, 0.975)).toBeCloseTo(0.2181, 4)
    expect(mostFailing(0, 0, 0.9)).toBe(1)
    expect(mostFailing(100_000, 0, 0.9)).toBeCloseTo(2.3026e-5, 8)
    expect(mostFailing(100_000, 3, 0.9)).toBeCloseTo(6.6808e-5, 7)
  })
  it('are wrong no oftener than they say, whatever share really fails', () => {
    const draw = seeded(41)
    for (const p of [0.03, 0.2, 0.5]) {
      let below = 0
      for (let i = 0; i < 4000; i++) {
        let k = 0
        for (let s = 0; s < 12; s++) if (draw() < p) k++
        if (mostFailing(12, k, CERTAIN) < p) below++
      }
      expect(below / 4000).toBeLessThan(1 - CERTAIN + 0.015)
    }
  })
  it('say how many more are needed, and one fewer is too few', () => {
    fc.assert(
      fc.property(counted, share, share, ([n, k], certainty, most) => {
        const more = moreStarts(n, k, certainty, most)
        expect(mostFailing(n + more, k, certainty)).toBeLessThanOrEqual(most + 1e-12)
        if (more > 0) expect(mostFailing(n + more - 1, k, certainty)).toBeGreaterThan(most)
      }),
    )
    fc.assert(
      fc.property(share, share, (certainty, most) => {
        expect(moreStarts(0, 0, certainty, most)).toBe(coldStartsFor(certainty, most))
      }),
    )
  })
  it('that are no count are refused, with what is wrong', () => {
    expect(() => mostFailing(3, 4, 0.9)).toThrow('more failures than starts')
    expect(() => mostFailing(3.5, 0, 0.9)).toThrow('whole numbers')
    expect(() => mostFailing(3, -1, 0.9)).toThrow('whole numbers')
    expect(() => mostFailing(3, 0, 1)).toThrow('certainty')
    expect(() => moreStarts(3, 0, 0.9, 1)).toThrow('share')
  })
  it('are said with what they prove', () => {
    expect(sayStarts({ made: 0, failed: 0 })).toBe('none made yet')
    expect(sayStarts({ made: 4, failed: 0 })).toBe(
      '4 of 4 came up: with 90 % certainty at most 44 % of starts fail',
    )
    expect(sayStarts({ made: 5, failed: 1 })).toContain('4 of 5 came up')
    expect(sayStarts({ made: 5, failed: 5 })).toBe('none of 5 came up')
    expect(sayStarts({ made: 100_000, failed: 0 })).toBe(
      '100000 of 100000 came up: with 90 % certainty less than 1 % of starts fail',
    )
    expect(sayStarts({ made: 500, failed: 499 }, 0.999)).toBe(
      '1 of 500 came up: how many starts fail at the most is not known yet',
    )
  })
})
