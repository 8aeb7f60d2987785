import { nothingRound } from '../job/advice-setting'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { jobState } from '../job/job-state'
import { tape } from '../job/tape.testing'
import { gateOf } from '../job/gate'
import { toBelieve } from '../job/advise'
import { nothingNoted } from '../board/baseline'
import { shelfItems } from '../board/shelf-items'
import type { ShelfItem } from '../board/shelf-items'
import { knownOf } from '../job/known'
import { believe, everyWay } from '../triage/reason/belief'
import { benchTests } from '../triage/model/bench-tests'
import { instrumentsFor, waysOf } from './decide'
import type { ToDecide } from './decide'

const money = {
  valueMinor: 300_000,
  ratePerHourMinor: 60_000,
  spentMinutes: 20,
  limitMinor: null,
  others: [],
}
const lacks = (minutes: number, tells: number) => [
  { item: 'scope', say: 'x', minutes, tells, settles: 0.5 } as const,
]
const of = (lookingMinutes: number, odds = 0.8): ToDecide => ({
  ...money,
  ways: [{ odds, minutes: 40, succeeds: 0.9, partsMinor: 0 }],
  lookingMinutes,
})

describe('one more instrument', () => {
  it('is worth the minutes of looking that it saves where the board is repaired anyway, and nothing where it saves none', () => {
    const [scope] = instrumentsFor(of(30, 1), { lacking: lacks(3, 1), next: [] })
    // A bit is six minutes of looking; its own test takes three.
    expect(scope).toMatchObject({ lookingMinutes: 27, lookingWithout: 30 })
    expect(scope!.worthMinor).toBeGreaterThan(3 * 1000 * 0.9)
    expect(scope!.worthMinor).toBeLessThan(3 * 1000 * 2)
    expect(instrumentsFor(of(30), { lacking: lacks(10, 1), next: [] })).toEqual([])
  })
  it('is never worth less than nothing, and more the more it tells', () => {
    const bits = fc.double({ min: 0.2, max: 3, noNaN: true })
    fc.assert(
      fc.property(bits, bits, fc.double({ min: 0.05, max: 1, noNaN: true }), (a, b, odds) => {
        const worth = (tells: number) =>
          instrumentsFor(of(40, odds), { lacking: lacks(1, tells), next: [] })[0]!.worthMinor
        expect(worth(a)).toBeGreaterThanOrEqual(-1e-6)
        expect(worth(Math.max(a, b))).toBeGreaterThanOrEqual(worth(Math.min(a, b)) - 1e-6)
      }),
    )
  })
  it('of a board in work: only what is wanting, by a test that needs it and nothing else that is wanting', () => {
    const t = tape()
      .put('look', { what: 'outside of the board', seen: 'clean', clear: true })
      .put('baseline', { ...nothingNoted, fans: 'on', current: 'steady', lamp: 'cpu', picture: 'none' })
    const state = jobState(t.entries)
    const ask = (shelf?: readonly ShelfItem[]) =>
      believe(toBelieve(state, null, gateOf(state, null), { ...nothingRound, ...(shelf ? { shelf } : {}) }))
    expect(ask().lacking).toEqual([])
    expect(ask(shelfItems).lacking).toEqual([])
    const bare = ask(['meter', 'bench supply'])
    expect(bare.lacking.length).toBeGreaterThan(1)
    for (const { item, say, tells, settles } of bare.lacking) {
      expect(['meter', 'bench supply']).not.toContain(item)
      const test = benchTests.find((b) => b.say === say)!
      expect(test.needs).toContain(item)
      expect(test.needs.filter((n) => n !== item && n !== 'meter' && n !== 'bench supply')).toEqual([])
      expect(tells).toBeGreaterThan(0)
      expect(settles).toBeGreaterThanOrEqual(0)
      expect(settles).toBeLessThanOrEqual(1)
    }
    const weighed = { ...money, ...waysOf(everyWay(knownOf(state, null, nothingRound)), []) }
    for (const i of instrumentsFor(weighed, bare)) {
      expect(i.lookingMinutes).toBeLessThan(i.lookingWithout)
      expect(i.worthMinor).toBeGreaterThanOrEqual(0)
    }
  })
})
