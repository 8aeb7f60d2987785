import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '@/core/maths/between.testing'
import { seeded } from '@/core/maths/seeded'
import { drawAsk } from './route-judge.testing'
import { release, starts } from './support-table.testing'
import { firstSteps, versionOdds, wrongLabel } from './version-odds'
import type { VersionAsk } from './version-odds'

const asked = fc.record({
  seed: fc.integer({ min: 1, max: 1e6 }),
  otherFault: between(0.02, 0.7),
  seen: fc.array(
    fc.record({
      cpu: fc.constantFrom('c0', 'c1', 'c2', 'c9'),
      saw: fc.constantFrom('starts' as const, 'dark' as const),
    }),
    { maxLength: 5 },
  ),
  labels: fc.array(
    fc.record({
      says: fc.constantFrom('r0', 'r1'),
      on: fc.constantFrom('screen' as const, 'sticker' as const, 'file name' as const),
    }),
    { maxLength: 2 },
  ),
})
const askOf = ({
  seed,
  ...rest
}: { seed: number } & Omit<VersionAsk, 'table' | 'prior' | 'others' | 'tries'>) => ({
  ...rest,
  table: drawAsk(seeded(seed)).table,
  prior: {},
  others: 1,
  tries: ['c0', 'c1', 'c2'],
})

describe('odds over releases', () => {
  it('sum to one, whatever is seen, and do not hang on the order', () => {
    fc.assert(
      fc.property(asked, (of) => {
        const ask = askOf(of)
        const { odds, otherFault, tries } = versionOdds(ask)
        expect(odds.reduce((a, o) => a + o.odds, 0)).toBeCloseTo(1, 9)
        expect(otherFault).toBeGreaterThanOrEqual(0)
        expect(otherFault).toBeLessThanOrEqual(1)
        for (const t of tries) {
          expect(t.bits).toBeGreaterThanOrEqual(0)
          expect(t.bits).toBeLessThanOrEqual(1 + 1e-9)
          expect(ask.seen.some((s) => s.cpu === t.cpu)).toBe(false)
        }
        const again = versionOdds({ ...ask, seen: ask.seen.toReversed(), labels: ask.labels.toReversed() })
        for (const { release, odds: p } of odds)
          expect(again.odds.find((o) => o.release === release)!.odds).toBeCloseTo(p, 9)
      }),
    )
  })

  it('are those of trying every way things can stand: release, fault, and each row right or wrong', () => {
    fc.assert(
      fc.property(asked, (of) => {
        const ask = askOf(of)
        const seen = [...new Map(ask.seen.map((s) => [s.cpu, s.saw] as const)).keys()].map((cpu) => ({
          cpu,
          starts: ask.seen.some((s) => s.cpu === cpu && s.saw === 'starts'),
        }))
        const { releases, support } = ask.table
        const age = (name: string) => releases.findIndex((r) => r.name === name)
        const weights = releases.map((r, v) => {
          let sum = 0
          for (const fault of [false, true]) {
            let p = fault ? ask.otherFault : 1 - ask.otherFault
            for (const { says, on } of ask.labels)
              p *= says === r.name ? 1 - wrongLabel[on] : wrongLabel[on] / (releases.length - 1)
            for (const { cpu, starts } of seen) {
              const rows = support.filter((s) => s.cpu === cpu)
              const row = rows.find((s) => age(s.from) <= v && (s.until === null || v <= age(s.until)))
              let likely = 0
              for (const truth of [false, true]) {
                const listed = row ? row.trust : 0.03
                const weight = rows.length === 0 ? 0.5 : truth ? listed : 1 - listed
                const good = row && (row.unstable || r.unstable) ? 0.8 : 0.97
                const start = fault ? 0.005 : rows.length === 0 ? (truth ? 1 : 0) : truth ? good : 0.005
                likely += weight * (starts ? start : 1 - start)
              }
              p *= likely
            }
            sum += p
          }
          return sum
        })
        const all = weights.reduce((a, b) => a + b, 0)
        for (const { release, odds } of versionOdds(ask).odds)
          expect(odds).toBeCloseTo(weights[age(release)]! / all, 9)
      }),
    )
  })

  it('a start rules out what does not start it; a dark screen is shared with other faults', () => {
    const table = {
      releases: [release('1.0'), release('1.2'), release('1.4')],
      support: [starts('old', '1.0'), starts('new', '1.4')],
    }
    const ask = { table, prior: {}, others: 1, labels: [], tries: ['old', 'new'], otherFault: 0.3 }
    const started = versionOdds({ ...ask, seen: [{ cpu: 'new', saw: 'starts' }] })
    expect(started.odds[0]).toEqual({
      release: '1.4',
      odds: expect.toSatisfy((p: number) => p > 0.9) as number,
    })
    expect(started.otherFault).toBeLessThan(0.01)
    const dark = versionOdds({ ...ask, seen: [{ cpu: 'new', saw: 'dark' }] })
    expect(dark.odds.at(-1)!.release).toBe('1.4')
    const twice = versionOdds({ ...ask, seen: [1, 2, 3].map(() => ({ cpu: 'new', saw: 'dark' as const })) })
    expect(twice).toEqual(dark)
    const both = versionOdds({ ...ask, seen: ['new', 'old'].map((cpu) => ({ cpu, saw: 'dark' as const })) })
    expect(both.otherFault).toBeGreaterThan(0.75)
    expect(versionOdds({ ...ask, seen: [] }).tries[0]!.cpu).toBe('new')
    expect(() => versionOdds({ ...ask, others: 0, seen: [] })).toThrow(RangeError)
  })
})

describe('a first step from a release that is not known', () => {
  it('is the one that is right for most, and says for how many', () => {
    const draw = seeded(12)
    for (let i = 0; i < 60; i++) {
      const ask = drawAsk(draw)
      const odds = ask.table.releases.map((r, v, all) => ({ release: r.name, odds: 1 / all.length + v * 0 }))
      const { steps, none } = firstSteps(ask, odds, 'time')
      expect(steps.reduce((a, s) => a + s.share, none)).toBeCloseTo(1, 9)
      expect(steps.map((s) => s.share)).toEqual(steps.map((s) => s.share).sort((a, b) => b - a))
    }
  })
})
