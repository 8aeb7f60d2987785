import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { jobState } from '../job/job-state'
import { tape } from '../job/tape.testing'
import { partsStep } from './next-step'
import { waitsFor } from './slice'

const partsOf = (t: ReturnType<typeof tape>) => jobState(t.entries).parts

describe('what a job waits for', () => {
  it('is all that has not come, until the last day of them; no day while one of them has none', () => {
    const t = tape()
      .put('awaited', { what: 'a capacitor', expectedOn: '2026-12-04' })
      .put('awaited', { what: 'a socket', expectedOn: '2026-12-01' })
    expect(waitsFor(partsOf(t))).toEqual({ what: 'a capacitor, a socket', expectedOn: '2026-12-04' })
    t.put('awaited', { what: 'a chip', expectedOn: null })
    expect(waitsFor(partsOf(t))!.expectedOn).toBeNull()
    t.put('awaited settled', { awaited: 3, how: 'not coming' })
    t.put('awaited settled', { awaited: 1, how: 'arrived' })
    expect(waitsFor(partsOf(t))).toEqual({ what: 'a socket', expectedOn: '2026-12-01' })
    t.put('awaited settled', { awaited: 2, how: 'arrived' })
    expect(waitsFor(partsOf(t))).toBeNull()
  })
  it('is never sooner for one thing more', () => {
    const day = fc.option(
      fc.integer({ min: 1, max: 28 }).map((d) => `2026-12-${String(d).padStart(2, '0')}`),
      { nil: null },
    )
    const thing = (expectedOn: string | null, seq: number) =>
      ({ id: '', seq, at: '', by: '', what: 'x', expectedOn, settled: null }) as const
    fc.assert(
      fc.property(fc.array(day, { minLength: 1, maxLength: 5 }), day, (days, more) => {
        const before = waitsFor({ awaited: days.map(thing) })!.expectedOn
        const after = waitsFor({ awaited: [...days, more].map(thing) })!.expectedOn
        if (before === null) expect(after).toBeNull()
        else if (after !== null) expect(after >= before).toBe(true)
      }),
    )
  })
  it('is what the parts station says, once nothing is in hand', () => {
    const t = tape().put('awaited', { what: 'a capacitor', expectedOn: '2026-12-04' })
    expect(partsStep(partsOf(t), null)).toMatchObject({
      say: 'Waits for a capacitor.',
      part: 'awaited',
    })
    t.put('part', { ref: 'C1', did: 'found damaged' })
    expect(partsStep(partsOf(t), null).say).toMatch(/^Take C1 off/)
  })
})
