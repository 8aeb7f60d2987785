import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../between.testing'
import { benchBeam, rootStress, stiffness } from './contact-force'
import { replacementWays, stubForce } from './replacement'
import type { ReplacementQuestion } from './replacement'

const question: ReplacementQuestion = {
  stubs: 1,
  gone: 0,
  runsNow: 0.2,
  runsMended: 0.92,
  boardMinor: 200_000,
  rateMinorPerHour: 60_000,
  donorContacts: 40,
  socketMinor: 90_000,
  exchangeMinor: 150_000,
}
const share = between(0, 1)
const any: fc.Arbitrary<ReplacementQuestion> = fc.record({
  stubs: fc.integer({ min: 0, max: 6 }),
  gone: fc.integer({ min: 0, max: 6 }),
  runsNow: share.map((p) => p * 0.5),
  runsMended: share.map((p) => 0.5 + p * 0.5),
  boardMinor: fc.integer({ min: 0, max: 500_000 }),
  rateMinorPerHour: fc.integer({ min: 0, max: 100_000 }),
  donorContacts: fc.integer({ min: 0, max: 60 }),
  socketMinor: fc.option(fc.integer({ min: 0, max: 200_000 })),
  exchangeMinor: fc.option(fc.integer({ min: 0, max: 400_000 })),
})

describe('a stub raised to its land', () => {
  it('with its whole length has the force of a contact at that travel', () => {
    expect(stubForce(1).toN).toBeCloseTo(stiffness(benchBeam) * 0.12, 9)
  })
  it('is stiffer the shorter it is, by the third power, until it yields', () => {
    const half = { ...benchBeam, lengthMm: benchBeam.lengthMm / 2 }
    expect(stiffness(half) / stiffness(benchBeam)).toBeCloseTo(8, 9)
    expect(stubForce(0.5).fromN).toBeCloseTo(stiffness(half) * 0.02, 9)
    const yieldMm = benchBeam.yieldMPa / rootStress({ ...benchBeam, lengthMm: 0.25 * benchBeam.lengthMm }, 1)
    expect(stubForce(0.25).toN).toBeCloseTo(
      stiffness({ ...benchBeam, lengthMm: 0.25 * benchBeam.lengthMm }) * 1.5 * yieldMm,
      9,
    )
  })
  it('refuses what is no share', () => expect(() => stubForce(0)).toThrow(RangeError))
})

describe('ways to replace', () => {
  it('those that can be done come first, worth most first; odds and harms are odds', () => {
    fc.assert(
      fc.property(any, (q) => {
        const ways = replacementWays(q)
        expect(new Set(ways.map((w) => w.way)).size).toBe(5)
        const done = ways.filter((w) => w.not === null)
        expect(ways.slice(0, done.length)).toEqual(done)
        expect(done.map((w) => w.worthMinor)).toEqual(
          [...done.map((w) => w.worthMinor)].sort((a, b) => b - a),
        )
        for (const w of ways) for (const p of [w.odds, w.harms]) expect(p >= 0 && p <= 1).toBe(true)
        expect(ways.find((w) => w.way === 'leave')).toMatchObject({
          odds: q.runsNow,
          minutes: 0,
          moneyMinor: 0,
          not: null,
        })
      }),
    )
  })
  it('one lone stub is raised, and how sure its force is is said', () => {
    const best = replacementWays(question)[0]!
    expect(best.way).toBe('stub raise')
    expect(best.forceN![0]).toBeLessThan(best.forceN![1])
    expect(best.note).toMatch(/a guess between/)
  })
  it('a snapped one has no stub; with no donor either, and dear boards, the socket is replaced or the board exchanged', () => {
    const ways = replacementWays({ ...question, stubs: 0, gone: 1, donorContacts: 0, boardMinor: 900_000 })
    expect(ways[0]!.way).toMatch(/exchange|whole socket/)
    expect(
      ways
        .filter((w) => w.not)
        .map((w) => w.way)
        .sort(),
    ).toEqual(['stub raise', 'transplant'])
    expect(ways.find((w) => w.way === 'transplant')!.not).toMatch(/0 contacts left, 1 are wanted/)
  })
  it('a contact the board hardly needs is left', () => {
    expect(replacementWays({ ...question, runsNow: 0.91 })[0]!.way).toBe('leave')
  })
  it('each more to transplant lowers its odds and takes donor contacts', () => {
    const of = (gone: number) =>
      replacementWays({ ...question, stubs: 0, gone }).find((w) => w.way === 'transplant')!
    expect(of(3).odds).toBeLessThan(of(1).odds)
    expect([of(1).donorContacts, of(3).donorContacts]).toEqual([1, 3])
  })
})
