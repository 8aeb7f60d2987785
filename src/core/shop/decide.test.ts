import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { normalDraw, seeded } from '../maths/seeded'
import { nothingNoted } from '../board/baseline'
import { nothingRound } from '../job/advice-setting'
import { usualFigures } from '../socket/straighten/bench-figures'
import { toBelieve } from '../job/advise'
import { gateOf } from '../job/gate'
import { jobState } from '../job/job-state'
import { knownOf } from '../job/known'
import { measured } from '../job/tape.testing'
import { believe, everyWay } from '../triage/reason/belief'
import { decide, doubtOf, sayDecided, waysOf, worthUntil } from './decide'
import type { ToDecide } from './decide'

const plain: ToDecide = {
  ways: [{ odds: 0.8, minutes: 40, succeeds: 0.8, partsMinor: 500 }],
  lookingMinutes: 20,
  valueMinor: 260_000,
  ratePerHourMinor: 60_000,
  spentMinutes: 30,
  limitMinor: null,
  others: [],
}
const kr = (minor: number) => `${Math.round(minor / 100)} kr`
const way = fc.record({
  odds: fc.double({ min: 0, max: 0.3, noNaN: true }),
  minutes: fc.integer({ min: 1, max: 200 }),
  succeeds: fc.double({ min: 0, max: 1, noNaN: true }),
  partsMinor: fc.integer({ min: 0, max: 20_000 }),
})
const any: fc.Arbitrary<ToDecide> = fc.record({
  ways: fc.array(way, { maxLength: 3 }),
  lookingMinutes: fc.integer({ min: 0, max: 90 }),
  valueMinor: fc.integer({ min: 0, max: 500_000 }),
  ratePerHourMinor: fc.integer({ min: 1000, max: 120_000 }),
  spentMinutes: fc.integer({ min: 0, max: 200 }),
  limitMinor: fc.option(fc.integer({ min: 0, max: 300_000 }), { nil: null }),
  donorMinor: fc.constantFrom(0, 0, 8000),
  others: fc.array(
    fc.record({
      name: fc.constantFrom('another board', 'send it out'),
      priceMinor: fc.integer({ min: 0, max: 300_000 }),
      succeeds: fc.double({ min: 0, max: 1, noNaN: true }),
      days: fc.integer({ min: 0, max: 30 }),
    }),
    { maxLength: 2 },
  ),
})

/** What going on until a minute comes to, played through board by board. */
function played(of: ToDecide, until: number, otherwise: number, n: number): number {
  const draw = seeded(77)
  let sum = 0
  for (let i = 0; i < n; i++) {
    let u = draw()
    const is = of.ways.find((w) => (u -= w.odds) < 0)
    const took = is ? (of.lookingMinutes + is.minutes) * Math.exp(0.6 * normalDraw(draw)) : Infinity
    const runs = is !== undefined && draw() < is.succeeds && took <= until
    sum += runs
      ? of.valueMinor - is.partsMinor - (took * of.ratePerHourMinor) / 60
      : otherwise - (until * of.ratePerHourMinor) / 60
  }
  return sum / n
}

describe('repair, exchange or hand back', () => {
  it('is worth what playing it through comes to, whatever the minute', () => {
    for (const until of [10, 45, 90, 240]) {
      const worth = worthUntil(plain, 9000)[until]!
      expect(Math.abs(worth - played(plain, until, 9000, 60_000))).toBeLessThan(1800)
    }
  })
  it('stops at the minute after which going on is worth less, and at none where it never is worth more', () => {
    fc.assert(
      fc.property(any, (of) => {
        const { stopAfterMinutes: stop, options } = decide(of)
        const otherwise = Math.max(
          of.donorMinor ?? 0,
          ...of.others.map((o) => o.succeeds * of.valueMinor - o.priceMinor),
        )
        const worth = worthUntil(of, otherwise)
        const allowed =
          of.limitMinor === null
            ? 600
            : Math.max(
                0,
                Math.min(600, Math.floor((60 * of.limitMinor) / of.ratePerHourMinor - of.spentMinutes)),
              )
        expect(stop).toBeLessThanOrEqual(allowed)
        expect(worth[stop]!).toBeGreaterThanOrEqual(Math.max(...worth.subarray(0, allowed + 1)) - 1e-6)
        expect(options.map((o) => o.worthMinor)).toEqual(
          options.map((o) => o.worthMinor).toSorted((a, b) => b - a),
        )
        expect(options.some((o) => o.is === 'go on')).toBe(stop > 0)
        expect(options.filter((o) => o.is === 'hand it back')).toHaveLength(1)
      }),
      { numRuns: 40 },
    )
    expect(decide({ ...plain, ways: [] })).toMatchObject({
      stopAfterMinutes: 0,
      options: [{ is: 'hand it back' }],
    })
    expect(decide({ ...plain, valueMinor: 10_000 }).stopAfterMinutes).toBe(0)
  })
  it('goes on longer for what is worth more or surer, and less long where the bench costs more', () => {
    const stop = (more: Partial<ToDecide>) => decide({ ...plain, ...more }).stopAfterMinutes
    const here = stop({})
    expect(here).toBeGreaterThan(30)
    expect(stop({ valueMinor: 500_000 })).toBeGreaterThanOrEqual(here)
    expect(stop({ ways: [{ ...plain.ways[0]!, odds: 0.95 }] })).toBeGreaterThanOrEqual(here)
    expect(stop({ ratePerHourMinor: 90_000 })).toBeLessThanOrEqual(here)
    const exchange = { name: 'another board', priceMinor: 150_000, succeeds: 0.97, days: 3 }
    expect(stop({ others: [exchange] })).toBeLessThanOrEqual(here)
  })
  it('ends with what the board brings as a donor, beside another board as well where that one leaves it here', () => {
    const exchange = { name: 'another board', priceMinor: 150_000, succeeds: 0.97, days: 3 }
    const worths = (more: Partial<ToDecide>) =>
      Object.fromEntries(decide({ ...plain, ...more }).options.map((o) => [o.name, o.worthMinor]))
    const without = worths({ others: [exchange] })
    const left = worths({ donorMinor: 20_000, others: [{ ...exchange, leavesBoard: true }] })
    expect(left['leave it here as a donor']).toBe(20_000)
    expect(left['another board']! - without['another board']!).toBeCloseTo(20_000, 6)
    expect(worths({ donorMinor: 20_000, others: [exchange] })['another board']).toBe(without['another board'])
    // Going on can end there too: it is worth more, and is stopped sooner.
    expect(worths({ donorMinor: 20_000 })['go on']!).toBeGreaterThan(worths({})['go on']!)
    const stop = (donorMinor: number) => decide({ ...plain, donorMinor }).stopAfterMinutes
    expect(stop(60_000)).toBeLessThan(stop(0))
  })
  it('keeps to what was agreed, and says that it does', () => {
    const limited = decide({ ...plain, valueMinor: 900_000, limitMinor: 60_000 })
    expect(limited).toMatchObject({ stopAfterMinutes: 29 })
    const free = decide({ ...plain, valueMinor: 900_000 })
    expect(limited.beyond).toEqual({
      minutes: free.stopAfterMinutes,
      runs: free.goingOn.runs,
      billMinor: free.goingOn.billMinor.high,
    })
    expect(limited.goingOn.billMinor.high).toBeLessThanOrEqual(60_000)
    expect(decide({ ...plain, limitMinor: 20_000 }).stopAfterMinutes).toBe(0)
    expect(decide(plain).beyond).toBeNull()
    fc.assert(
      fc.property(any, (of) => {
        const { goingOn, stopAfterMinutes, beyond } = decide(of)
        expect(beyond?.billMinor ?? 0).toBeLessThanOrEqual(of.valueMinor + 1e-6)
        if (of.limitMinor !== null && stopAfterMinutes > 0)
          expect(goingOn.billMinor.high).toBeLessThanOrEqual(of.limitMinor + 1e-6)
      }),
      { numRuns: 40 },
    )
  })
  it('plays out as the sums have it: chance, minutes, bill', () => {
    const { goingOn, stopAfterMinutes } = decide(plain)
    expect(goingOn.runs).toBeLessThan(0.64)
    expect(goingOn.runs).toBeGreaterThan(0.3)
    const { low, middle, high } = goingOn.minutes
    expect(low).toBeLessThanOrEqual(middle)
    expect(middle).toBeLessThanOrEqual(high)
    expect(high).toBeLessThanOrEqual(stopAfterMinutes)
    expect(goingOn.billMinor.low).toBeGreaterThanOrEqual(30_000)
  })
  it('says it to the owner in two sentences', () => {
    const sentences = (more: Partial<ToDecide>) => {
      const say = sayDecided(decide({ ...plain, ...more }), kr)
      expect(say.match(/\.(\s|$)/g)).toHaveLength(2)
      return say
    }
    expect(sentences({})).toMatch(/^It can be repaired here with \d+ %, for \d+ kr to \d+ kr/)
    expect(sentences({ ways: [] })).toMatch(/hand it back as it is\.$/)
    expect(sentences({ donorMinor: 8000 })).toMatch(/stop there and keep it here as a donor, for 80 kr\.$/)
    expect(sentences({ ways: [], donorMinor: 8000 })).toMatch(
      /We would keep it here as a donor, for 80 kr\.$/,
    )
    const exchange = { name: 'another board', priceMinor: 10_000, succeeds: 0.97, days: 3 }
    expect(sentences({ others: [exchange] })).toMatch(/^Another board is the better way: .* about 3 days\./)
    const aDay = sentences({ ways: [], others: [{ ...exchange, days: 1 }] })
    expect(aDay).toMatch(/about a day\. A repair here would bring less, on average\.$/)
    expect(
      sentences({ valueMinor: 400_000, others: [{ ...exchange, priceMinor: 390_000, succeeds: 1 }] }),
    ).toMatch(/another board is the better way from there/)
  })
  it('says in two sentences as well that more would be worth it than what was agreed', () => {
    const said = (more: Partial<ToDecide>) => {
      const say = sayDecided(decide({ ...plain, ...more }), kr)
      expect(say.match(/\.(\s|$)/g)).toHaveLength(2)
      return say
    }
    expect(said({ valueMinor: 900_000, limitMinor: 60_000 })).toMatch(
      /After 29 more minutes what is agreed is used up; up to \d+ kr it can be repaired here with \d+ %: ask the owner\.$/,
    )
    expect(said({ limitMinor: 20_000 })).toMatch(
      /^Within what is agreed, going on costs more.*\. Up to \d+ kr it can be repaired here with \d+ %: ask the owner before/,
    )
    const exchange = { name: 'another board', priceMinor: 230_000, succeeds: 1, days: 3 }
    expect(said({ limitMinor: 20_000, others: [exchange] })).toMatch(
      /^Another board is the better way within what is agreed: .*and that is worth more: ask the owner\.$/,
    )
  })
  it('takes its ways from triage: what is repaired alike is one, one fault after another', () => {
    const all = [
      { faults: ['slot A'], odds: 0.3 },
      { faults: ['slot A', 'module'], odds: 0.25 },
      { faults: ['slot B'], odds: 0.2 },
      { faults: [], odds: 0.1 },
    ] as const
    const { ways, lookingMinutes } = waysOf(all, [])
    expect(ways.map((w) => w.minutes)).toEqual([53, 63, 4])
    expect(ways.map((w) => w.odds)).toEqual([0.5, 0.25, 0.1])
    expect(ways.map((w) => w.partsMinor)).toEqual([15_000, 55_000, 0])
    const own = { ...usualFigures, controllerMinor: 900 }
    expect(waysOf(all, [], { figures: own }).ways[0]!.partsMinor).toBe(900)
    expect(ways[0]!.succeeds).toBeCloseTo(0.72, 9)
    expect(ways[1]!.succeeds).toBeCloseTo(0.72 * 0.97, 9)
    expect(ways[2]!.succeeds).toBe(1)
    expect(lookingMinutes).toBeCloseTo(6 * doubtOf([0.3, 0.25, 0.2, 0.1]), 9)
    expect(doubtOf([0.5, 0.25])).toBeCloseTo(1.5, 12)
    expect(doubtOf([1])).toBe(0)
    const slow = waysOf([{ faults: ['power contacts open'], odds: 1 }], [], {
      contactsMinutes: 70,
      factor: 2,
    })
    expect(slow.ways[0]!.minutes).toBe(156)
    expect(waysOf(all, [], { contactsMinutes: 70 }).ways[0]!.minutes).toBe(53)
  })
  it('weighs every way a board may stand, not the likeliest alone: the rest is repaired as well', () => {
    const state = jobState(
      measured().put('baseline', { ...nothingNoted, fans: 'on', current: 'steady', picture: 'none' }).entries,
    )
    const belief = believe(toBelieve(state, null, gateOf(state, null), nothingRound))
    const all = everyWay(knownOf(state, null, nothingRound))
    const sum = (ways: readonly { readonly odds: number }[]) => ways.reduce((odds, way) => odds + way.odds, 0)
    expect(sum(all)).toBeCloseTo(1 - belief.somethingElse, 9)
    expect(sum(belief.causes)).toBeLessThan(0.6)
    const { ways } = waysOf(all, [])
    expect(sum(ways)).toBeCloseTo(sum(all), 9)
    expect(ways.length).toBeLessThan(120)
  })
})
