import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { normalDraw, seeded } from '../maths/seeded'
import { sayFactor, timeFactor } from './factor'

const anyJobs = fc.array(
  fc.record({ expected: fc.integer({ min: 5, max: 400 }), took: fc.integer({ min: 5, max: 400 }) }),
  { maxLength: 40 },
)

describe('time against what was expected', () => {
  it('is as expected without a record', () => {
    expect(timeFactor([])).toMatchObject({ n: 0, factor: 1 })
    const { low, high } = timeFactor([])
    expect(low * high).toBeCloseTo(1, 12)
  })
  it('comes to the geometric mean of many, and little of one', () => {
    const draw = seeded(3)
    const jobs = Array.from({ length: 4000 }, () => ({
      expected: 60,
      took: 60 * 1.4 * Math.exp(0.5 * normalDraw(draw)),
    }))
    const many = timeFactor(jobs)
    expect(many.factor).toBeCloseTo(1.4, 1)
    expect(many.scatter).toBeCloseTo(0.5, 1)
    expect(many.low).toBeLessThan(1.4)
    expect(many.high).toBeGreaterThan(1.38)
    const one = timeFactor([{ expected: 60, took: 120 }])
    expect(one.factor).toBeGreaterThan(1)
    expect(one.factor).toBeLessThan(1.5)
  })
  it('is the mean of the posterior, as summing it over a grid says', () => {
    const jobs = [
      { expected: 60, took: 90 },
      { expected: 30, took: 36 },
      { expected: 100, took: 80 },
    ]
    const { factor, scatter } = timeFactor(jobs)
    let [mass, sum] = [0, 0]
    for (let m = -2; m <= 2; m += 0.001) {
      const log = jobs.reduce(
        (l, { expected, took }) => l - (Math.log(took / expected) - m) ** 2 / (2 * scatter ** 2),
        -(m ** 2) / (2 * 0.4 ** 2),
      )
      mass += Math.exp(log)
      sum += m * Math.exp(log)
    }
    expect(Math.log(factor)).toBeCloseTo(sum / mass, 6)
  })
  it('is turned about when the two are exchanged, and grows with what it took', () => {
    fc.assert(
      fc.property(anyJobs, (jobs) => {
        const { factor, low, high } = timeFactor(jobs)
        expect(low).toBeLessThan(factor)
        expect(high).toBeGreaterThan(factor)
        const turned = timeFactor(jobs.map(({ expected, took }) => ({ expected: took, took: expected })))
        expect(turned.factor * factor).toBeCloseTo(1, 9)
        const longer = timeFactor(jobs.map((j) => ({ ...j, took: j.took * 1.5 })))
        expect(longer.factor).toBeGreaterThanOrEqual(factor)
      }),
    )
  })
  it('refuses hours that are none', () => {
    expect(() => timeFactor([{ expected: -60, took: 30 }])).toThrow('above zero')
    expect(() => timeFactor([{ expected: 60, took: 0 }])).toThrow('above zero')
  })
  it('is said in a sentence', () => {
    expect(sayFactor(timeFactor(Array.from({ length: 200 }, () => ({ expected: 60, took: 78 }))))).toBe(
      'By 200 jobs of the record, work takes 30 % longer than agreed, and is reckoned so.',
    )
    expect(sayFactor(timeFactor([{ expected: 60, took: 60 }]))).toContain('work takes what is agreed')
  })
})
