import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boardWithPartGone } from '@/simulated-bench/missing-part'
import { inferMissing, roles } from './infer'
import { asRead, minutesOf, readKinds, scorePart } from './practice-part'
import type { PadRead, PartTruth } from './practice-part'

const all = new Set((['a', 'b'] as const).flatMap((pad) => readKinds.map((of): PadRead => `${pad} ${of}`)))
const series = (): PartTruth => {
  for (let seed = 1; ; seed++) {
    const gone = boardWithPartGone(seed, true, 0)
    if (!gone.never && gone.role === 'series') return gone
  }
}
const anyReads = fc.subarray([...all]).map((s) => new Set(s))

describe('a missing part to practise on', () => {
  it('shows only what was read, and costs the minutes of that', () => {
    const { part } = series()
    expect(asRead(part, new Set())).toMatchObject({ a: {}, b: {} })
    expect(Object.keys(asRead(part, new Set(['a ground'])).a)).toEqual(['groundOhm'])
    expect(asRead(part, all)).toEqual(part)
    expect(minutesOf(['a ground', 'b diode', 'a rails', 'b pins'])).toBe(1 + 1 + 2 + 3)
    expect(minutesOf([])).toBe(0)
  })
  it('is full marks for the role, a near value, and no more readings than it needs', () => {
    const truth = series()
    const least = scorePart(truth, all, { role: 'series', ohm: truth.ohm }).leastMinutes!
    // The cheapest that is sure is found again by hand among all of one or two readings dearer.
    expect(least).toBeGreaterThan(0)
    expect(least).toBeLessThanOrEqual(minutesOf(all))
    const said = (ohm: number | null, role: (typeof roles)[number] = 'series') =>
      scorePart(truth, all, { role, ohm })
    expect(said(truth.ohm)).toMatchObject({
      rightRole: true,
      value: 'right',
      score: Math.round(80 + (20 * least) / 14),
    })
    expect(said(truth.ohm! * 2).value).toBe('right')
    expect(said(truth.ohm! * 3).value).toBe('far off')
    expect(said(0).value).toBe('far off')
    expect(said(null)).toMatchObject({ value: 'not tried' })
    expect(said(null).score).toBe(said(truth.ohm).score - 10)
    expect(said(truth.ohm, 'pull-up').score).toBe(0)
  })
  it('is worth nothing where a value is tried that nobody may guess, and something for leaving it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5000 }),
        anyReads,
        fc.constantFrom(...roles),
        (seed, asked, role) => {
          const gone = boardWithPartGone(seed)
          const tried = scorePart(gone, asked, { role, ohm: 1000 })
          const left = scorePart(gone, asked, { role, ohm: null })
          if (gone.never) {
            expect(tried).toMatchObject({ score: 0, value: 'never guessed' })
            expect(left).toMatchObject({ value: 'rightly not guessed' })
            expect(left.score).toBeGreaterThanOrEqual(30)
          }
          expect(left.score).toBeLessThanOrEqual(100)
          expect(left.bench).toEqual(inferMissing(asRead(gone.part, asked)))
          // Nobody is sure with less than the least.
          if (left.leastMinutes === null || left.minutes < left.leastMinutes) {
            const [top] = left.bench.roles
            expect(top!.role === gone.role && top!.odds >= 0.9).toBe(false)
          }
        },
      ),
      { numRuns: 20 },
    )
  })
})
