import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chanceToTake, repairOf } from './repair'
import { repaired, succeeds } from './repair-record'
import { faultIds } from './faults'

describe('how often a repair takes', () => {
  it('is the bench default while the record is empty, and a repair counts by it', () => {
    for (const fault of faultIds) expect(succeeds(fault, [])).toBeCloseTo(repairOf(fault).succeeds, 12)
    expect(chanceToTake({ is: 'mended', fault: 'slot A' })).toBe(0.72)
    expect(chanceToTake({ is: 'mended', fault: 'slot A', takes: 0.5 })).toBe(0.5)
  })
  it('is what the record says once it has more than the default counts for', () => {
    expect(succeeds('slot A', [{ fault: 'slot A', tried: 20, took: 4 }])).toBeCloseTo((14.4 + 4) / 40, 9)
    expect(succeeds('slot A', [{ fault: 'slot A', tried: 2000, took: 400 }])).toBeCloseTo(0.2, 1)
  })
  it('goes on the tape with the repair, where the record says anything else than the bench default', () => {
    expect(repaired('slot A', [])).toEqual({ fault: 'slot A' })
    expect(repaired('slot A', [{ fault: 'slot B', tried: 20, took: 4 }])).toEqual({
      fault: 'slot A',
      takes: 0.46,
    })
  })
  it('is learned from faults that are repaired alike, and from no other', () => {
    const record = [{ fault: 'slot B', tried: 10, took: 0 }]
    expect(succeeds('slot A', record)).toBeLessThan(0.5)
    expect(succeeds('firmware corrupt', record)).toBe(succeeds('firmware corrupt', []))
    expect(succeeds('slot A', [{ fault: 'no such fault', tried: 10, took: 0 }])).toBe(succeeds('slot A', []))
  })
  it('stays a chance, and more that took never lowers it', () => {
    const tally = fc
      .record({
        fault: fc.constantFrom(...faultIds),
        tried: fc.nat({ max: 500 }),
        share: fc.double({ min: 0, max: 1, noNaN: true }),
      })
      .map(({ fault, tried, share }) => ({ fault, tried, took: Math.floor(tried * share) }))
    fc.assert(
      fc.property(fc.array(tally, { maxLength: 5 }), fc.constantFrom(...faultIds), (record, fault) => {
        const p = succeeds(fault, record)
        expect(p).toBeGreaterThan(0)
        expect(p).toBeLessThan(1)
        expect(succeeds(fault, [...record, { fault, tried: 1, took: 1 }])).toBeGreaterThanOrEqual(p)
        expect(succeeds(fault, [...record, { fault, tried: 1, took: 0 }])).toBeLessThanOrEqual(p)
      }),
    )
  })
  it('refuses more that took than were tried', () => {
    expect(() => succeeds('slot A', [{ fault: 'slot A', tried: 1, took: 2 }])).toThrow(RangeError)
  })
})
