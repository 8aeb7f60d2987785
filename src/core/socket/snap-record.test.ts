import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../between.testing'
import { learn, snapFactors } from './snap-record'

const tally = (tried: number, snapped: number, p: number) => ({
  technique: 'push',
  damage: 'lean' as const,
  tried,
  snapped,
  predicted: p * tried,
})

describe('what the shop learns of its own hands', () => {
  it('lies between what was predicted and what happened, nearer to the record the more there is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), between(0, 1), between(0.01, 0.5), (tried, share, p) => {
        const snapped = Math.round(share * tried)
        const { odds, low, high, factor } = learn(tally(tried, snapped, p))
        const [least, most] = [Math.min(p, snapped / tried), Math.max(p, snapped / tried)]
        expect(odds).toBeGreaterThanOrEqual(least - 1e-12)
        expect(odds).toBeLessThanOrEqual(most + 1e-12)
        expect(low).toBeLessThanOrEqual(odds + 1e-6)
        expect(high).toBeGreaterThanOrEqual(odds - 0.02)
        expect(factor * p).toBeCloseTo(odds, 10)
        const longer = learn(tally(tried * 10, snapped * 10, p))
        expect(Math.abs(longer.odds - snapped / tried)).toBeLessThanOrEqual(
          Math.abs(odds - snapped / tried) + 1e-12,
        )
      }),
    )
  })
  it('without a record says what was predicted', () => {
    expect(learn({ technique: 'unfold', damage: null, tried: 0, snapped: 0, predicted: 0 }).odds).toBeCloseTo(
      0.08,
      6,
    )
    expect(snapFactors([])).toEqual({})
  })
  it('takes all kinds of damage of a technique together', () => {
    const both = snapFactors([tally(30, 6, 0.02), { ...tally(30, 6, 0.02), damage: 'low' }])
    expect(both.push).toBeCloseTo(learn(tally(60, 12, 0.02)).factor, 10)
  })
  it('refuses more snapped than tried', () => {
    expect(() => learn(tally(2, 3, 0.1))).toThrow(RangeError)
  })
})
