import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { faultIds } from '../triage/model/faults'
import type { FaultId } from '../triage/model/faults'
import { secondOpinion, opinionFor } from './second-opinion'
import type { ToDecide } from './decide'

interface Way {
  readonly faults: readonly FaultId[]
  readonly odds: number
}
const ways = fc
  .array(
    fc.record({
      faults: fc.uniqueArray(fc.constantFrom(...faultIds), { maxLength: 2 }),
      odds: fc.double({ min: 0.01, max: 1, noNaN: true }),
    }),
    { minLength: 1, maxLength: 6 },
  )
  .map((all) => {
    const sum = all.reduce((s, w) => s + w.odds, 0)
    return all.map((w) => ({ ...w, odds: w.odds / sum / 1.1 }))
  })
const entropy = (odds: readonly number[]) => odds.reduce((s, p) => (p > 0 ? s - p * Math.log2(p) : s), 0)

/** By the letter: who answers looks at one fault after the other, names the first that shows, and of nothing now and then something. */
function byHand(causes: readonly Way[], shows: (f: FaultId) => number): number {
  const visible = [...new Set(causes.flatMap((c) => c.faults))].filter((f) => shows(f) > 0)
  const joint: number[][] = []
  const lacks = 1 - causes.reduce((s, c) => s + c.odds, 0)
  for (const { faults, odds } of [...causes, { faults: [], odds: lacks }]) {
    const row = new Array<number>(visible.length + 1).fill(0)
    let left = odds
    for (const f of faults) {
      const i = visible.indexOf(f)
      if (i < 0) continue
      row[i]! += left * shows(f)
      left *= 1 - shows(f)
    }
    const wrong = visible.length > 0 ? left * 0.1 : 0
    for (let i = 0; i < visible.length; i++) row[i]! += wrong / visible.length
    row[visible.length]! += left - wrong
    joint.push(row)
  }
  const before = entropy(joint.map((row) => row.reduce((s, p) => s + p, 0)))
  const after = [...Array(visible.length + 1).keys()].reduce((s, a) => {
    const p = joint.reduce((t, row) => t + row[a]!, 0)
    return p > 0 ? s + p * entropy(joint.map((row) => row[a]! / p)) : s
  }, 0)
  return before - after
}

describe('a second opinion', () => {
  it('tells what the doubt lacks after its answer, worked out by the letter', () => {
    // Chances that a photo shows it: 0.6 of the look’s own.
    const shows: Partial<Record<FaultId, number>> = {
      'power contacts shorted': 0.93 * 0.6,
      'slot A': 0.88 * 0.6,
      'core regulator part': 0.75 * 0.6,
    }
    const causes: Way[] = [
      { faults: ['power contacts shorted'], odds: 0.4 },
      { faults: ['slot A', 'core regulator part'], odds: 0.2 },
      { faults: ['supply'], odds: 0.2 },
      { faults: [], odds: 0.1 },
    ]
    const said = secondOpinion(causes, [])
    expect(said.tells).toBeCloseTo(
      byHand(causes, (f) => shows[f] ?? 0),
      10,
    )
    expect(said.names).toBeCloseTo(0.4 * 0.558 + 0.2 * (1 - (1 - 0.528) * (1 - 0.45)), 10)
  })
  it('never tells less than nothing, nor more than there is to doubt; where it was looked at here it tells less', () => {
    fc.assert(
      fc.property(ways, (causes) => {
        const fresh = secondOpinion(causes, [])
        const looked = secondOpinion(causes, [
          'socket',
          'outside',
          'slots',
          'round the chip',
          'round the socket',
        ])
        const lacks = Math.max(0, 1 - causes.reduce((s, c) => s + c.odds, 0))
        expect(fresh.tells).toBeGreaterThanOrEqual(0)
        expect(fresh.tells).toBeLessThanOrEqual(entropy([...causes.map((c) => c.odds), lacks]) + 1e-9)
        expect(looked.tells).toBeLessThanOrEqual(fresh.tells + 1e-9)
        expect(looked.names).toBeLessThanOrEqual(fresh.names + 1e-9)
      }),
    )
  })
  it('tells nothing of what no photo shows, and saves nothing then', () => {
    const causes: Way[] = [
      { faults: ['supply'], odds: 0.5 },
      { faults: ['settings'], odds: 0.4 },
    ]
    const of: ToDecide = {
      ways: causes.map((c) => ({ odds: c.odds, minutes: 20, succeeds: 0.9, partsMinor: 0 })),
      lookingMinutes: 30,
      valueMinor: 300_000,
      ratePerHourMinor: 60_000,
      spentMinutes: 0,
      limitMinor: null,
      others: [],
    }
    expect(secondOpinion(causes, []).tells).toBe(0)
    expect(opinionFor(of, { causes: [], made: [] })).toMatchObject({
      lookingMinutes: 30,
      lookingWithout: 30,
      worthMinor: 0,
    })
    const seen = ['power contacts open', 'slot A', 'slot B', 'core regulator part'] as const
    const told = opinionFor(of, {
      causes: seen.map((f) => ({ faults: [f], odds: 0.24, say: '', before: 0 })),
      made: [],
    })
    expect(told.lookingMinutes).toBeLessThan(30)
    expect(told.worthMinor).toBeGreaterThan(0)
  })
})
