import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seeded } from '../maths/seeded'
import { percent } from '../maths/percent'
import { calibrate, corrected, correctionOf, sayCalibration, shareBounds } from './calibration'
import type { Said } from './calibration'

const anySaid = fc.array(
  fc.record({ odds: fc.integer({ min: 0, max: 100 }).map((n) => n / 100), came: fc.boolean() }),
  { maxLength: 60 },
)
const shop = (n: number, comes: (p: number) => number, seed = 5): Said[] => {
  const draw = seeded(seed)
  return Array.from({ length: n }, () => {
    const odds = Math.round(20 * (0.05 + 0.9 * draw())) / 20
    return { odds, came: draw() < comes(odds) }
  })
}

describe('odds against what came', () => {
  it('has Brier’s score and its tenths, as counting them by hand says', () => {
    const said = [
      { odds: 0.8, came: true },
      { odds: 0.8, came: false },
      { odds: 0.3, came: false },
      { odds: 1, came: true },
    ]
    const { n, brier, brierOfShare, deciles, few } = calibrate(said)
    expect(n).toBe(4)
    expect(brier).toBeCloseTo((0.04 + 0.64 + 0.09 + 0) / 4, 12)
    expect(brierOfShare).toBeCloseTo(0.25, 12)
    expect(deciles[8]).toMatchObject({ n: 2, said: 0.8, came: 0.5 })
    expect(deciles[3]).toMatchObject({ n: 1, came: 0 })
    expect(deciles[9]).toMatchObject({ n: 1, said: 1, came: 1, high: 1 })
    expect(deciles[0]).toBeNull()
    expect(few).toBe(true)
  })
  it('of none says that there is none, and corrects nothing', () => {
    const none = calibrate([])
    expect(none).toMatchObject({ n: 0, brier: null, brierOfShare: null })
    expect(sayCalibration(none, percent)).toBe('nothing said yet that has come true or not')
    for (const p of [0.1, 0.5, 0.9]) expect(corrected(p, none.correction)).toBeCloseTo(p, 9)
  })
  it('refuses what are no odds', () => {
    expect(() => calibrate([{ odds: 1.2, came: true }])).toThrow('from 0 to 1')
    expect(() => calibrate([{ odds: NaN, came: true }])).toThrow('from 0 to 1')
  })
  it('bounds a share exactly: the tails of the binomial at the bounds are one in twenty', () => {
    const tail = (p: number, n: number, from: number, to: number) => {
      let sum = 0
      for (let k = from; k <= to; k++) {
        let ways = 1
        for (let i = 0; i < k; i++) ways = (ways * (n - i)) / (i + 1)
        sum += ways * p ** k * (1 - p) ** (n - k)
      }
      return sum
    }
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.nat(), (n, drawn) => {
        const k = drawn % (n + 1)
        const [low, high] = shareBounds(k, n)
        expect(low).toBeLessThanOrEqual(k / n)
        expect(high).toBeGreaterThanOrEqual(k / n)
        if (k > 0) expect(tail(low, n, k, n)).toBeCloseTo(0.05, 6)
        if (k < n) expect(tail(high, n, 0, k)).toBeCloseTo(0.05, 6)
      }),
    )
  })
})

describe('the correction', () => {
  it('is the likeliest there is: no step away from it is likelier', () => {
    const cost = (said: readonly Said[], [a, b, c]: readonly number[]) => {
      const prior = ((a! - 1) / 0.5) ** 2 / 2 + ((b! - 1) / 0.5) ** 2 / 2 + (c! / 0.7) ** 2 / 2
      return said.reduce((sum, { odds, came }) => {
        const p = Math.min(0.995, Math.max(0.005, odds))
        const q = 1 / (1 + Math.exp(-(a! * Math.log(p) - b! * Math.log(1 - p) + c!)))
        return sum - Math.log(came ? q : 1 - q)
      }, prior)
    }
    fc.assert(
      fc.property(anySaid, (said) => {
        const at = correctionOf(said)
        const least = cost(said, at)
        for (let i = 0; i < 3; i++)
          for (const step of [-0.05, 0.05])
            expect(
              cost(
                said,
                at.map((v, k) => v + (k === i ? step : 0)),
              ),
            ).toBeGreaterThanOrEqual(least - 1e-9)
      }),
    )
  })
  it('is its own mirror: odds against, of what did not come', () => {
    fc.assert(
      fc.property(anySaid, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (said, p) => {
        const mirrored = said.map(({ odds, came }) => ({ odds: 1 - odds, came: !came }))
        expect(corrected(1 - p, correctionOf(mirrored))).toBeCloseTo(1 - corrected(p, correctionOf(said)), 5)
      }),
    )
  })
  it('leaves odds that are right nearly as they are, and mends those that are not', () => {
    const { correction } = calibrate(shop(2000, (p) => p))
    for (const p of [0.2, 0.5, 0.8]) expect(Math.abs(corrected(p, correction) - p)).toBeLessThan(0.04)
    const sure = calibrate(shop(2000, (p) => 0.5 + 0.5 * (p - 0.5))).correction
    expect(corrected(0.9, sure)).toBeCloseTo(0.7, 1)
    expect(corrected(0.1, sure)).toBeCloseTo(0.3, 1)
  })
  it('changes little by little: three odds that came true are no record', () => {
    const few = calibrate(Array.from({ length: 3 }, () => ({ odds: 0.5, came: true })))
    expect(corrected(0.5, few.correction)).toBeLessThan(0.7)
    expect(sayCalibration(few, percent)).toContain('3 so far: too few')
    const many = calibrate(shop(400, (p) => 0.5 + 0.5 * (p - 0.5)))
    expect(sayCalibration(many, percent)).toMatch(/^what is said as 7\d % comes true in 6\d %/)
  })
  it('speaks of odds that were said, and of no others', () => {
    const sure = Array.from({ length: 40 }, (_, i) => ({ odds: i % 2 ? 0.93 : 0.95, came: i % 10 > 0 }))
    expect(sayCalibration(calibrate(sure), percent)).toMatch(/^what is said as 94 % comes true in 9\d %$/)
    const [low, high] = [
      { odds: 0.24, came: false },
      { odds: 0.78, came: true },
    ]
    const both = calibrate([
      ...Array.from({ length: 15 }, () => low),
      ...Array.from({ length: 45 }, () => high),
    ])
    expect(sayCalibration(both, percent)).toMatch(/^what is said as 78 % .* what is said as 24 % in/)
  })
})
