import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { wholePercents } from './whole-percents'

const parts = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 2, maxLength: 9 })

describe('whole percents', () => {
  test('sum to 100, and each is within one of its part', () => {
    fc.assert(
      fc.property(parts, (given) => {
        const total = given.reduce((a, b) => a + b, 0)
        fc.pre(total > 1e-6)
        const whole = wholePercents(given)
        expect(whole.reduce((a, b) => a + b, 0)).toBe(100)
        whole.forEach((w, i) => expect(Math.abs(w - (100 * given[i]!) / total)).toBeLessThan(1 + 1e-9))
      }),
    )
  })

  test('what is not certain is never 100', () => {
    expect(wholePercents([0.998, 0.001, 0.001])).toEqual([99, 0, 1])
    expect(wholePercents([0.001, 0.999])).toEqual([1, 99])
    expect(wholePercents([1, 0])).toEqual([100, 0])
  })
})
