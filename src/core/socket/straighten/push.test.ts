import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { benchBeam } from '../contact/contact-force'
import { lifeSoFar, offsetOf, pushAdvice } from './push'
import { exhaustive, stakes } from './push.testing'
import type { PushQuestion } from './push'
import { smallField } from '../model/field.testing'
import { weigh } from './reckon'
import { fieldOf } from '../model/socket'
import { handlingOf, untwistOdds } from './technique'

const question: PushQuestion = {
  kind: 'land-grid',
  technique: 'push',
  residualMm: 0.3,
  isHeight: false,
  lifeUsed: 0.002,
  runsGood: 0.95,
  runsLost: 0.2,
  worthMinor: 100_000,
  strokeMinor: 1000,
  lossMinor: 20_000,
}
const any: fc.Arbitrary<PushQuestion> = fc.record({
  kind: fc.constantFrom('land-grid' as const, 'pin-grid' as const),
  technique: fc.constantFrom('push' as const, 'lift' as const, 'unfold' as const, 'part' as const),
  residualMm: between(0, 0.55),
  isHeight: fc.boolean(),
  lifeUsed: between(0, 1.5),
  runsGood: between(0.5, 1),
  runsLost: between(0, 0.5),
  worthMinor: fc.integer({ min: 0, max: 300_000 }),
  strokeMinor: fc.integer({ min: 0, max: 3000 }),
  lossMinor: fc.integer({ min: 0, max: 60_000 }),
  snapFactor: between(0.5, 3),
})

describe('stop or push', () => {
  it('agrees with an exhaustive search of all that can come of the strokes', () => {
    fc.assert(
      fc.property(any, (q) => {
        const found = pushAdvice(q, benchBeam, 5).gainMinor
        const oracle = exhaustive(q, 5)
        // Life stands on a grid of 0.05.
        expect(Math.abs(found - oracle)).toBeLessThanOrEqual(0.02 * stakes(q) + 1)
        if (Math.abs(oracle) > 0.02 * stakes(q)) expect(found > 0).toBe(oracle > 0)
      }),
      { numRuns: 60 },
    )
  })
  it('looking farther ahead than five strokes hardly changes what the next one is worth', () => {
    fc.assert(
      fc.property(any, (q) => {
        const apart = pushAdvice(q).gainMinor - pushAdvice(q, benchBeam, 5).gainMinor
        expect(apart).toBeGreaterThanOrEqual(-1e-6)
        expect(apart).toBeLessThanOrEqual(0.02 * stakes(q) + 1)
      }),
    )
  })
  it('more to lose never makes it push where it would stop', () => {
    fc.assert(
      fc.property(any, fc.integer({ min: 1, max: 100_000 }), (q, more) => {
        const dearer = pushAdvice({ ...q, lossMinor: q.lossMinor + more })
        expect(dearer.gainMinor).toBeLessThanOrEqual(pushAdvice(q).gainMinor + 1e-6)
      }),
    )
  })
  it('its odds are odds, and what is left shrinks stroke by stroke', () => {
    fc.assert(
      fc.property(any, (q) => {
        const { curve, makesContactNow } = pushAdvice(q)
        let [left, lost] = [q.residualMm, 0]
        for (const c of curve) {
          expect(c.residualMm).toBeLessThan(left)
          expect(c.lostByThen).toBeGreaterThanOrEqual(lost)
          expect(c.lostByThen).toBeLessThanOrEqual(1)
          ;[left, lost] = [c.residualMm, c.lostByThen]
        }
        expect(makesContactNow).toBeGreaterThanOrEqual(0)
        expect(makesContactNow).toBeLessThanOrEqual(1)
      }),
    )
  })
  it.each([
    [
      'a lone signal well off its land is pushed',
      {},
      'push',
      /one more stroke takes its odds of contact from 17 % to about 99 %/,
    ],
    ['one that is as near as can be seen is tested', { residualMm: 0.01 }, 'test', /as near its place/],
    ['one that makes contact already is tried first', { residualMm: 0.08 }, 'test', /try the board first/],
    [
      'one whose loss outweighs what it can gain is left',
      { technique: 'unfold', runsLost: 0.9, lossMinor: 90_000 },
      'stop',
      /costs more than it can gain/,
    ],
    ['one that nobody needs is left', { runsLost: 0.949 }, 'stop', /hardly needs it/],
    [
      'a shop that snaps ten times as many stops sooner',
      { runsLost: 0.85, snapFactor: 20, technique: 'part' },
      'stop',
      /./,
    ],
  ] as const)('%s', (_, change, advice, why) => {
    const got = pushAdvice({ ...question, ...change })
    expect([got.advice, got.why]).toEqual([advice, expect.stringMatching(why)])
  })
  it('the shop’s factor holds for the metal as well as for the hand', () => {
    const metal = { ...question, technique: 'replace', residualMm: 0.55, lifeUsed: 1 } as const
    const plain = pushAdvice(metal).snapsNext
    expect(plain).toBeGreaterThan(0)
    expect(pushAdvice({ ...metal, snapFactor: 3 }).snapsNext / plain).toBeCloseTo(3, 6)
  })
  it('how far off a contact is comes of its mark', () => {
    expect(offsetOf({ kind: 'lean', leanMm: [0.3, 0.4], heightMm: -0.1 })).toEqual({
      offsetMm: 0.5,
      isHeight: false,
    })
    expect(offsetOf({ kind: 'low', heightMm: -0.2 })).toEqual({ offsetMm: 0.2, isHeight: true })
    expect(offsetOf({ kind: 'folded' }).offsetMm).toBe(0.5)
  })
  it('counts lean and lowness together', () => {
    const both = { ...question, residualMm: 0.2, leanMm: 0.2, heightMm: -0.19 }
    expect(pushAdvice({ ...question, residualMm: 0.2 }).makesContactNow).toBeGreaterThan(0.7)
    expect(pushAdvice(both).makesContactNow).toBeLessThan(0.02)
  })
  it('never stops while a short stands: it says part it', () => {
    fc.assert(
      fc.property(any, (q) => {
        const got = pushAdvice({ ...q, residualMm: Math.max(0.5, q.residualMm), shortStands: 'surely' })
        expect(got.advice).toBe('part')
        expect(got.ends.leftMinor).toBe(0)
      }),
      { numRuns: 40 },
    )
    const short = { ...question, residualMm: 0.5, runsLost: 0.949, shortStands: 'surely' as const }
    expect(Math.abs(pushAdvice(short, benchBeam, 5).gainMinor - exhaustive(short, 5))).toBeLessThan(
      0.03 * short.worthMinor,
    )
  })
  it('weighs three ends: worked on, lost, left as it is', () => {
    fc.assert(
      fc.property(any, (q) => {
        const { ends } = pushAdvice(q)
        expect(ends.pushedMinor).toBeGreaterThanOrEqual(ends.leftMinor - 1e-6)
        expect(ends.lostMinor).toBeCloseTo(q.worthMinor * q.runsLost - q.lossMinor, 6)
      }),
    )
  })
  it('speaks of a fold as the plan does', () => {
    const socket = smallField()
    const fold = { kind: 'folded', touches: 'C5' } as const
    const planned = handlingOf(socket, fieldOf(socket).named.get('C4')!, fold, { C4: fold })
    const got = weigh(socket, {
      marks: { C4: fold },
      contact: 'C4',
      technique: 'unfold',
      first: fold,
      strokes: 0,
      worthMinor: 100_000,
      strokeMinor: 1000,
      lossMinor: 0,
      withALoss: 0.6,
    })
    expect(got.advice).toBe('part')
    expect(Math.abs(got.curve.at(-1)!.lostByThen - planned.snaps)).toBeLessThan(0.05)
  })
  it('untwisting loses it by the angle', () => {
    expect([20, 45, 90].map(untwistOdds)).toEqual([0.05, 0.15, 0.5])
    for (let deg = 0; deg < 180; deg++) expect(untwistOdds(deg + 1)).toBeGreaterThan(untwistOdds(deg))
    expect(untwistOdds(200)).toBeGreaterThanOrEqual(untwistOdds(180))
  })
  it('a fold has used far more of the metal than a lean, and each stroke uses some', () => {
    const lean = { kind: 'lean', leanMm: [0.3, 0] } as const
    expect(lifeSoFar({ kind: 'folded' }, 0, 0.9)).toBeGreaterThan(20 * lifeSoFar(lean, 0, 0.9))
    expect(lifeSoFar(lean, 3, 0.9)).toBeGreaterThan(lifeSoFar(lean, 1, 0.9))
  })
})
