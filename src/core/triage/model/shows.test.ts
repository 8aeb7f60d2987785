import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { believe } from '../reason/belief'
import { testOf } from '../reason/hypotheses'
import { benchTests } from './bench-tests'
import { faultIds } from './faults'
import { readAs, readShows, showsColumns, showsRows, signals, testsOf } from './shows'
import { startOutcomes } from './start-model'

const read = (...rows: readonly [what: string, there: string][]) =>
  readShows(
    'a board',
    rows.map(([what, there]) => ({ what, there })),
    showsColumns,
  )
const asked = { history: [], evidence: [], mayPower: true } as const

describe('what a board can show', () => {
  it('is read from a table, and written as it was read', () => {
    const { body, findings } = read(['debug LEDs', 'no'], ['beeper', 'yes'])
    expect(findings).toEqual([])
    expect(body).toEqual({ name: 'a board', shown: { 'debug LEDs': false, beeper: true } })
    expect(showsRows(body!)).toEqual([
      ['debug LEDs', 'no'],
      ['beeper', 'yes'],
    ])
  })
  it.each<[string, readonly [string, string][], RegExp]>([
    ['an unknown word', [['lights', 'yes']], /none of: debug LEDs, code display/],
    ['neither yes nor no', [['beeper', 'perhaps']], /neither yes nor no/],
    ['nothing', [['beeper', '']], /yes or no/],
    [
      'the same twice',
      [
        ['beeper', 'yes'],
        ['beeper', 'no'],
      ],
      /stands twice/,
    ],
    ['no rows', [], /no rows/],
  ])('%s is a finding', (_, rows, says) => {
    const { body, findings } = read(...rows)
    expect(body).toBeNull()
    expect(findings[0]!.text).toMatch(says)
  })
})

describe('testsOf', () => {
  it('leaves every test as it is where nobody said what it shows', () => {
    expect(testsOf({})).toEqual(benchTests)
    expect(testsOf(Object.fromEntries(signals.map((s) => [s, true])))).toEqual(benchTests)
  })
  it('a board without LEDs answers a start by fans and picture: what its LEDs would tell apart is one outcome', () => {
    const start = testsOf({ 'debug LEDs': false }).find((t) => t.id === 'cold start')!
    expect(start.outcomes).toEqual(['nothing', 'twitches', 'fans, dark', 'maker screen', 'system loads'])
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...faultIds), { maxLength: 2 }), (ids) => {
        const full = testOf('cold start').odds(ids)
        const odds = start.odds(ids)
        const of = (outcome: string) => full[startOutcomes.indexOf(outcome as never)]!
        expect(odds.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
        expect(odds[0]).toBeCloseTo(of('nothing'), 12)
        expect(odds[2]).toBeCloseTo(
          ['fans, no lamp', 'CPU lamp', 'memory lamp', 'graphics lamp', 'boot lamp'].reduce(
            (s, o) => s + of(o),
            0,
          ),
          12,
        )
      }),
      { numRuns: 60 },
    )
  })
  it('codes are read on its display, else on a card it takes, else not at all; beeps only with a beeper', () => {
    const needs = (shown: Parameters<typeof testsOf>[0]) =>
      testsOf(shown).find((t) => t.id === 'codes')?.needs
    expect(needs({ 'code display': true })).toEqual([])
    expect(needs({ 'code display': false })).toEqual(['code card'])
    expect(needs({ 'code display': false, 'code card': false })).toBeUndefined()
    expect(testsOf({ beeper: false }).some((t) => t.id === 'beeps')).toBe(false)
  })
  it('that no LED was lit says nothing of a board that has none', () => {
    const none = { 'debug LEDs': false }
    const dark = { outcome: 'fans, no lamp', earlier: ['fans, no lamp', 'nothing'] }
    expect(readAs(dark, none)).toEqual({ outcome: 'fans, dark', earlier: ['fans, dark', 'nothing'] })
    expect(readAs(dark, {})).toEqual(dark)
    expect(readAs({ outcome: 'memory lamp' }, none)).toEqual({ outcome: 'memory lamp' })
  })
})

describe('the adviser of a board that shows little', () => {
  it('does not count on what it cannot show', () => {
    const next = (shown: Parameters<typeof testsOf>[0]) => believe({ ...asked, shown }).next
    const blind = { 'debug LEDs': false, 'code display': false, 'code card': false, beeper: false }
    for (const { test, outcomes } of next(blind)) {
      expect(['codes', 'beeps']).not.toContain(test.id)
      for (const { outcome } of outcomes) expect(outcome).not.toMatch(/lamp$/)
      expect(outcomes.every(({ outcome }) => test.outcomes.includes(outcome))).toBe(true)
    }
    const tells = (shown: Parameters<typeof testsOf>[0], id: string) =>
      next(shown).find((s) => s.test.id === id)?.tells ?? 0
    expect(tells({}, 'as it came')).toBeGreaterThan(0)
    expect(tells({ 'debug LEDs': false }, 'as it came')).toBeLessThan(tells({}, 'as it came'))
  })
  it('goes on from a dark start as it does where the LED was not noted', () => {
    const of = (outcome: string) => [{ test: 'as it came', outcome }]
    const { faults } = believe({ ...asked, evidence: of('fans, no lamp'), shown: { 'debug LEDs': false } })
    expect(faults).toEqual(believe({ ...asked, evidence: of('fans, dark') }).faults)
    expect(faults).not.toEqual(believe({ ...asked, evidence: of('fans, no lamp') }).faults)
  })
})
