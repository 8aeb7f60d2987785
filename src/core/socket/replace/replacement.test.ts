import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { benchBeam, rootStress, stiffness } from '../contact/contact-force'
import { figuresOf, usualFigures } from '../straighten/bench-figures'
import { replacementWays, stubForce, worthGivingBack } from './replacement'
import type { ReplacementQuestion } from './replacement'

const question: ReplacementQuestion = {
  stubs: 1,
  gone: 0,
  runsNow: 0.2,
  runsMended: 0.92,
  boardMinor: 200_000,
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
  it('reckons with the shop’s own figures', () => {
    const own = (hourMinor: number) =>
      replacementWays({ ...question, stubs: 0, gone: 1 }, figuresOf({ hourMinor })).find(
        (w) => w.way === 'transplant',
      )!
    expect(own(120_000).worthMinor).toBeCloseTo(own(60_000).worthMinor - (45 / 60) * 60_000, 6)
    const sure = replacementWays(question, figuresOf({ raiseHolds: 1 })).find((w) => w.way === 'stub raise')!
    expect(sure.odds).toBeGreaterThan(replacementWays(question)[0]!.odds)
  })
})

describe('one by one', () => {
  /** A board that runs with odds 0.1 + what each contact adds; `both` adds only where two are together. */
  const anyBoard = fc.record({
    adds: fc.array(between(0, 0.15), { minLength: 1, maxLength: 6 }),
    stubs: fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }),
    both: between(0, 0.4),
    boardMinor: fc.integer({ min: 1000, max: 600_000 }),
  })
  const worthOf =
    (adds: readonly number[], both: number) =>
    (names: readonly string[]): number =>
      Math.min(
        1,
        0.1 +
          names.reduce((sum, n) => sum + adds[Number(n.slice(1))]!, 0) +
          (names.includes('A0') && names.includes('A1') ? both : 0),
      )
  /** Worth of a set by the formula, written out anew; every subset is tried. */
  function best(
    gone: readonly { contact: string; stub: boolean }[],
    worth: (names: readonly string[]) => number,
    boardMinor: number,
  ): number {
    const f = usualFigures
    const raise = [f.raiseHolds * stubForce(0.55).enough, f.raiseHarms, f.raiseMinutes, f.raiseSetUp] as const
    const plant = [f.transplantHolds, f.transplantHarms, f.transplantMinutes, f.transplantSetUp] as const
    const alone = ([holds, harms, minutes]: typeof raise | typeof plant) =>
      holds * (1 - harms / 2) * boardMinor - (minutes / 60) * f.hourMinor
    let most = -Infinity
    for (let set = 0; set < 2 ** gone.length; set++) {
      const back = gone.filter((_, i) => set & (1 << i))
      const ways = back.map((g) => (g.stub && alone(raise) >= alone(plant) ? raise : plant))
      const minutes =
        ways.reduce((sum, w) => sum + w[2], 0) + [...new Set(ways)].reduce((sum, w) => sum + w[3], 0)
      const holds = ways.reduce((all, w) => all * w[0], 1)
      const unharmed = ways.reduce((all, w) => all * (1 - w[1]), 1)
      const share = (0.1 + holds * (worth(back.map((g) => g.contact)) - 0.1)) * (1 - (1 - unharmed) / 2)
      most = Math.max(most, share * boardMinor - (minutes / 60) * f.hourMinor)
    }
    return most
  }
  it('leaves and gives back nearly as well as trying every set, and never worse than all or none', () => {
    fc.assert(
      fc.property(anyBoard, ({ adds, stubs, both, boardMinor }) => {
        const gone = adds.map((_, i) => ({ contact: `A${i}`, stub: stubs[i]! }))
        const worth = worthOf(adds, both)
        const told = worthGivingBack(gone, worth, boardMinor)
        const chosen = told.filter((g) => g.worthIt).map((g) => g.contact)
        const value = (set: readonly string[]) => {
          const of = gone.filter((g) => set.includes(g.contact))
          // The same search with only these on offer, all of them taken: its own best is at most theirs together.
          return best(of, worth, boardMinor)
        }
        expect(value(chosen)).toBeGreaterThanOrEqual(best(gone, worth, boardMinor) - 0.1 * boardMinor - 1e-6)
        for (const g of told) expect(g.costsLeft).toBeGreaterThanOrEqual(0)
      }),
    )
  })
  it('two that only help together are both given back', () => {
    const gone = [
      { contact: 'A0', stub: true },
      { contact: 'A1', stub: true },
    ]
    const told = worthGivingBack(gone, worthOf([0, 0], 0.8), 400_000)
    expect(told.every((g) => g.worthIt)).toBe(true)
    expect(told[0]!.costsLeft).toBeCloseTo(0.8, 9)
  })
})
