import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { functionLaw, groupState, isRail, parallelState, shortGrade, starts } from './function-law'
import { functionGroups } from '../../board/function-group'
import type { FunctionGroup } from '../../board/function-group'

const anyGroup = fc.constantFrom(...functionGroups)
const end = (group: FunctionGroup, net: string = group) => ({ group, net })

describe('contacts that share a current', () => {
  const law = functionLaw['core power']

  /** The current of the group dealt out in equal parts, counted up contact by contact. */
  const byHand = (of: number, lost: number) => {
    let total = 0
    for (let i = 0; i < of; i++) total += law.usualA!
    const each = total / (of - lost)
    return { fails: lost >= of || each > law.limitA! + 1e-12, strained: each > 0.8 * law.limitA! + 1e-12 }
  }

  it('fail when the rest would carry more than a contact may, and are strained shortly before', () => {
    for (let of = 1; of <= 60; of++)
      for (let lost = 0; lost <= of; lost++) {
        const expected = byHand(of, lost)
        const state = parallelState(law, of, lost)
        if (lost === 0) expect(state).toBe('whole')
        else if (Math.abs((0.55 * of) / (of - lost) - 1) > 1e-9)
          expect(state === 'failed', `${lost} of ${of}`).toBe(expected.fails)
        if (state === 'whole' && lost > 0) expect(expected.strained).toBe(false)
        if (state === 'strained') expect(expected).toMatchObject({ fails: false, strained: true })
      }
  })
  it('are each of what the law says of one contact, by itself and together', () => {
    const shares = { kind: 'parallel', usualA: 1, limitA: 2 } as const
    const state = (lost: number) => parallelState({ ...law, ...shares }, 10, lost)
    // 10 A over what is left: 1.67 A with four lost is strained, 2 A with five just holds, 2.5 A with six does not.
    expect([0, 3, 4, 5, 6, 10, 11].map(state)).toEqual([
      'whole',
      'whole',
      'strained',
      'strained',
      'failed',
      'failed',
      'failed',
    ])
    const { usualA: _, limitA: __, ...untold } = { ...law, kind: 'parallel' as const }
    expect([3, 4, 5, 6].map((lost) => parallelState(untold, 10, lost))).toEqual([
      'whole',
      'strained',
      'strained',
      'failed',
    ])
    expect(parallelState(functionLaw['memory A'], 10, 9)).toBe('whole')
    for (const group of functionGroups) {
      expect(groupState(group, 10, 0)).toBe('whole')
      const { kind } = functionLaw[group]
      expect(groupState(group, 10, 10)).toBe(kind === 'none' ? 'whole' : 'failed')
      expect(groupState(group, 1000, 1)).toBe(kind === 'single' ? 'failed' : 'whole')
    }
  })
  it('never get better by losing one more', () => {
    const rank = { whole: 0, strained: 1, failed: 2 }
    fc.assert(
      fc.property(anyGroup, fc.integer({ min: 1, max: 200 }), fc.nat({ max: 199 }), (group, of, lost) => {
        fc.pre(lost < of)
        expect(rank[groupState(group, of, lost + 1)]).toBeGreaterThanOrEqual(
          rank[groupState(group, of, lost)],
        )
      }),
    )
  })
  it('bear one loss among many and none where each is needed', () => {
    expect(groupState('ground', 200, 1)).toBe('whole')
    expect(groupState('core power', 100, 60)).toBe('failed')
    expect(groupState('memory A', 120, 1)).toBe('failed')
    expect(groupState('reserved', 40, 40)).toBe('whole')
  })
})

describe('whether it starts', () => {
  const of = functionGroups.map(() => 40)
  const lost = (...pairs: [FunctionGroup, number][]) => {
    const counts = functionGroups.map(() => 0)
    for (const [group, n] of pairs) counts[functionGroups.indexOf(group)] = n
    return counts
  }
  it.each<[string, [FunctionGroup, number][], boolean]>([
    ['nothing lost', [], true],
    ['one ground', [['ground', 1]], true],
    ['nearly all ground', [['ground', 39]], false],
    ['one clock', [['clock', 1]], false],
    ['one reset', [['reset', 1]], false],
    ['one sense', [['sense', 1]], false],
    ['all of channel A', [['memory A', 40]], true],
    [
      'one of each channel',
      [
        ['memory A', 1],
        ['memory B', 1],
      ],
      false,
    ],
    ['every card lane', [['card lanes', 40]], true],
    ['a drive port', [['storage lanes', 3]], true],
    ['the display', [['display', 3]], true],
    ['all the reserved', [['reserved', 40]], true],
  ])('%s', (_, pairs, expected) => {
    expect(starts(lost(...pairs), of)).toBe(expected)
  })
  it('never starts again by losing more', () => {
    const counts = fc.array(fc.nat({ max: 40 }), {
      minLength: functionGroups.length,
      maxLength: functionGroups.length,
    })
    fc.assert(
      fc.property(counts, fc.nat({ max: functionGroups.length - 1 }), (some, i) => {
        fc.pre(some[i]! < 40)
        const more = some.map((n, g) => (g === i ? n + 1 : n))
        if (!starts(some, of)) expect(starts(more, of)).toBe(false)
      }),
    )
  })
  it('has a symptom for every group', () => {
    for (const group of functionGroups) expect(functionLaw[group].symptom.length).toBeGreaterThan(5)
  })
})

describe('how bad a join is', () => {
  it.each<[FunctionGroup, FunctionGroup, string]>([
    ['core power', 'ground', 'gravest'],
    ['core power', 'memory power', 'gravest'],
    ['ground', 'memory A', 'grave'],
    ['io power', 'clock', 'grave'],
    ['ground', 'reserved', 'signal'],
    ['memory A', 'memory B', 'signal'],
    ['unknown', 'ground', 'unknown'],
    ['unknown', 'unknown', 'unknown'],
  ])('%s to %s: %s', (a, b, grade) => {
    expect(shortGrade(end(a, 'one'), end(b, 'other'))).toBe(grade)
  })
  it('is the same both ways round, and nothing within one net', () => {
    fc.assert(
      fc.property(anyGroup, anyGroup, (a, b) => {
        expect(shortGrade(end(a, 'one'), end(b, 'other'))).toBe(shortGrade(end(b, 'other'), end(a, 'one')))
        expect(shortGrade(end(a, 'one'), end(b, 'one'))).toBe('harmless')
        if (isRail(a) && isRail(b)) expect(shortGrade(end(a, 'one'), end(b, 'other'))).toBe('gravest')
      }),
    )
  })
})
