import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../between.testing'
import { lifeUsed, pushFor, snapOdds } from './bend'
import { contactVerdict } from './contact-force'
import { lifeSoFar, offsetOf, pushAdvice } from './push'
import type { PushQuestion } from './push'
import { slipOdds } from './technique'

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
})

/**
 * Exhaustive search: every sequence of outcomes, stroke after stroke, without a grid of life; the offset on the same
 * grid of 0.02 mm as the programme. Exponential in the strokes left, so for few of them.
 */
function exhaustive(q: PushQuestion, strokes: number): number {
  const shares = [
    [0.05, 0.25],
    [0.25, 0.3],
    [0.45, 0.25],
    [0.7, 0.12],
    [-0.25, 0.08],
  ] as const
  const round = (mm: number) => Math.min(30, Math.round(Math.abs(mm) / 0.02)) * 0.02
  const stop = (r: number) => {
    const makes =
      r < 1e-9
        ? 1
        : contactVerdict(
            q.isHeight ? { kind: 'low', heightMm: -r } : { kind: 'lean', leanMm: [r, 0] },
            q.kind,
          ).makesContact
    return q.worthMinor * (q.runsLost + makes * (q.runsGood - q.runsLost))
  }
  const value = (r: number, life: number, n: number): number =>
    n === 0 || r < 1e-9 ? stop(r) : Math.max(stop(r), push(r, life, n))
  const push = (r: number, life: number, n: number): number => {
    const after = life + lifeUsed(pushFor(r).curvature)
    const snaps = 1 - (1 - snapOdds(life, after)) * (1 - slipOdds[q.technique])
    const then = shares.reduce((sum, [share, odds]) => sum + odds * value(round(r * share), after, n - 1), 0)
    return -q.strokeMinor + (1 - snaps) * then + snaps * (q.worthMinor * q.runsLost - q.lossMinor)
  }
  const r = round(q.residualMm)
  return r < 1e-9 ? 0 : push(r, q.lifeUsed, strokes) - stop(r)
}

describe('stop or push', () => {
  it('agrees with an exhaustive search of all that can come of the strokes', () => {
    fc.assert(
      fc.property(any, (q) => {
        const found = pushAdvice(q).gainMinor
        const oracle = exhaustive(q, 5)
        // Five strokes ahead or eight: the last ones hardly count. Life stands on a grid of 0.05.
        const apart = Math.abs(found - oracle)
        expect(apart).toBeLessThanOrEqual(
          0.03 * (q.worthMinor * (q.runsGood - q.runsLost) + q.lossMinor + q.strokeMinor) + 1,
        )
        if (Math.abs(oracle) > 0.04 * (q.worthMinor + q.lossMinor + q.strokeMinor))
          expect(found > 0).toBe(oracle > 0)
      }),
      { numRuns: 60 },
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
      /one more stroke takes its odds of contact from 17 to about 99/,
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
  it('a fold has used far more of the metal than a lean, and each stroke uses some', () => {
    const lean = { kind: 'lean', leanMm: [0.3, 0] } as const
    expect(lifeSoFar({ kind: 'folded' }, 0, 0.9)).toBeGreaterThan(20 * lifeSoFar(lean, 0, 0.9))
    expect(lifeSoFar(lean, 3, 0.9)).toBeGreaterThan(lifeSoFar(lean, 1, 0.9))
  })
})
