import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { closeness, eyeSaid, learn, learnedEyes, learnedTechniques, snapFactors } from './snap-record'
import type { SnapTally } from './snap-record'
import { snapFactor } from './technique'

const tally = (tried: number, snapped: number, p: number, own: Partial<SnapTally> = {}): SnapTally => ({
  technique: 'push',
  damage: 'lean',
  light: null,
  magnification: null,
  ...own,
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
    const none = { technique: 'unfold', tried: 0, snapped: 0, predicted: 0, damage: null }
    expect(learnedTechniques([{ ...none, light: null, magnification: null }])[0]!.odds).toBeCloseTo(0.08, 6)
    expect(snapFactors([])).toEqual({})
  })
  it('takes all kinds of damage of a technique together', () => {
    const both = snapFactors([tally(30, 6, 0.02), { ...tally(30, 6, 0.02), damage: 'low' }])
    expect(both.push).toBeCloseTo(learn(tally(60, 12, 0.02)).factor, 10)
  })
  it('a kind of damage that goes worse than its technique has a factor of its own; one seldom seen goes with it', () => {
    const factors = snapFactors([
      tally(400, 4, 0.02),
      tally(200, 20, 0.02, { damage: 'touching' }),
      tally(1, 0, 0.02, { damage: 'twisted' }),
    ])
    expect(factors['push touching']).toBeGreaterThan(3)
    expect(factors['push lean']).toBeLessThan(0.9)
    expect(factors['push twisted']! / factors.push!).toBeCloseTo(1, 1)
    expect(snapFactor(factors, 'push', 'touching')).toBe(factors['push touching'])
    expect(snapFactor(factors, 'push', 'low')).toBe(factors.push)
    expect(snapFactor(factors, 'unfold', 'folded')).toBe(1)
  })
  it('refuses more snapped than tried', () => {
    expect(() => learn(tally(2, 3, 0.1))).toThrow(RangeError)
  })
  it('adds up what was done under all lights', () => {
    const apart = [tally(30, 2, 0.02, { light: 'ring' }), tally(10, 1, 0.04, { magnification: '25×' })]
    const [one, ...others] = learnedTechniques(apart)
    expect(others).toEqual([])
    expect(one).toMatchObject({ technique: 'push', damage: 'lean', tried: 40, snapped: 3 })
    expect(one!.predicted).toBeCloseTo(1, 9)
    expect(snapFactors(apart)).toEqual(snapFactors([tally(40, 3, 0.025)]))
  })
})

describe('what light and magnification make of it', () => {
  const record = [
    tally(200, 16, 0.04, { light: 'Ring ', magnification: '12×' }),
    tally(400, 8, 0.04, { light: 'low from one side', magnification: '25x' }),
  ]
  it('tells what is lost more under one, beyond what the technique explains', () => {
    const eyes = learnedEyes(record)
    expect(eyes.map((e) => [e.by, e.as])).toEqual([
      ['light', 'ring'],
      ['light', 'low from one side'],
      ['magnification', '10× to 20×'],
      ['magnification', 'over 20×'],
    ])
    // 24 of 600 were lost and 24 predicted: the technique is as predicted, the ring light is not.
    expect(eyes[0]!.factor).toBeGreaterThan(1.5)
    expect(eyes[1]!.factor).toBeLessThan(0.7)
    expect(eyeSaid(eyes[0]!)).toMatch(/“ring” more are lost than elsewhere: 16 of 200, where 8\.\d were/)
    // The two always went together: what the light explains is not said of the magnification again.
    expect(eyeSaid(eyes[3]!)).toBeNull()
    for (const e of eyes.slice(2)) expect(Math.abs(Math.log(e.factor))).toBeLessThan(0.2)
  })
  it('tells a magnification that matters under one and the same light', () => {
    const eyes = learnedEyes([
      tally(200, 16, 0.04, { light: 'ring', magnification: '7×' }),
      tally(400, 8, 0.04, { light: 'ring', magnification: '25×' }),
    ])
    expect(eyeSaid(eyes[0]!)).toBeNull()
    expect(eyeSaid(eyes.find((e) => e.as === 'under 10×')!)).toMatch(/at under 10× more are lost/)
    expect(eyeSaid(eyes.find((e) => e.as === 'over 20×')!)).toMatch(/at over 20× fewer/)
  })
  it('counts in every technique, also one that was never tried, and only while one looks so', () => {
    const under = snapFactors(record, { light: 'ring' })
    const plain = snapFactors(record)
    expect(under.push).toBeGreaterThan(plain.push! * 1.5)
    expect(under.unfold).toBeGreaterThan(1.5)
    expect(snapFactors(record, { light: 'a torch', magnification: '' })).toEqual(plain)
  })
  it('says nothing where nothing tells: a bad technique is not blamed on the light it was done under', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 400 }), between(0.02, 0.2), (tried, p) => {
        const snapped = Math.round(3 * p * tried) > tried ? tried : Math.round(3 * p * tried)
        const eyes = learnedEyes([tally(tried, snapped, p, { light: 'ring' })])
        expect(eyeSaid(eyes[0]!)).toBeNull()
        expect(Math.abs(Math.log(eyes[0]!.factor))).toBeLessThan(0.4)
      }),
    )
  })
  it.each([
    ['7x', 'under 10×'],
    ['10', '10× to 20×'],
    ['20 ×', '10× to 20×'],
    ['x 22,5', 'over 20×'],
    ['near', null],
    ['', null],
  ])('%s is %s', (said, as) => expect(closeness(said)).toBe(as))
})
