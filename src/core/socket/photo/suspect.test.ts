import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMark, smallField } from '../model/field.testing'
import { isDamage } from '../damage/mark'
import type { Mark } from '../damage/mark'
import type { MergedTip } from './merge'
import { markOf, suspects, together } from './suspect'

const socket = smallField()
const tip = (name: string, change: Partial<MergedTip> = {}): MergedTip => ({
  name,
  as: 'in place',
  offsetMm: [0, 0],
  confidence: 0.99,
  shine: 1,
  heightMm: null,
  photo: 'p',
  px: [0, 0],
  ...change,
})
const map = (...changed: MergedTip[]) =>
  new Map(socket.contacts.map((c) => [c.name, changed.find((t) => t.name === c.name) ?? tip(c.name)]))

describe('what a tip would be marked as', () => {
  it.each<[string, MergedTip, Mark | null]>([
    ['in place', tip('C3'), null],
    ['not seen is not asked about', tip('C3', { as: 'not seen', offsetMm: null }), null],
    ['displaced', tip('C3', { as: 'displaced', offsetMm: [0.3, 0] }), { kind: 'lean', leanMm: [0.3, 0] }],
    [
      'against a neighbour',
      tip('C3', { as: 'displaced', offsetMm: [0.8, 0] }),
      { kind: 'touching', touches: 'C4', leanMm: [0.8, 0] },
    ],
    [
      'missing: snapped or folded',
      tip('C3', { as: 'missing', offsetMm: null }),
      { kind: 'snapped', maybe: 'folded', unsure: true },
    ],
    [
      'a strip that runs to another',
      tip('C3', { as: 'displaced', offsetMm: null, over: 'C4' }),
      { kind: 'folded', unsure: true, touches: 'C4' },
    ],
    [
      'covered',
      tip('C3', { as: 'ambiguous', offsetMm: null, why: 'something covers it' }),
      { kind: 'paste', maybe: 'lodged', unsure: true },
    ],
    ['low', tip('C3', { heightMm: -0.15 }), { kind: 'low', heightMm: -0.15 }],
    ['hardly low', tip('C3', { heightMm: -0.03 }), null],
    ['dim', tip('C3', { shine: 0.5 }), { kind: 'twisted', maybe: 'low', unsure: true }],
    ['bright', tip('C3', { shine: 1.8 }), { kind: 'high', maybe: 'lodged', unsure: true }],
  ])('%s', (_, t, mark) => expect(markOf(socket, t, map(t))).toEqual(mark))

  it('suspects come row by row from the far side', () => {
    const off = { as: 'missing', offsetMm: null } as const
    const tips = [...map(tip('F2', off), tip('B5', off), tip('B1', off)).values()]
    expect(suspects(socket, { tips, disagreements: [], seen: tips.length }).map((s) => s.name)).toEqual([
      'B1',
      'B5',
      'F2',
    ])
  })
})

describe('a photo beside what is marked already', () => {
  it('keeps what a person said it is, takes the photo’s measures', () => {
    const low: Mark = { kind: 'low', heightMm: -0.2 }
    expect(together(low, { kind: 'lean', leanMm: [0.2, 0] })).toEqual({
      kind: 'low',
      heightMm: -0.2,
      leanMm: [0.2, 0],
    })
    expect(together({ kind: 'tip gone' }, { kind: 'snapped', maybe: 'folded', unsure: true })).toEqual({
      kind: 'tip gone',
    })
    expect(
      together({ kind: 'lean', leanMm: [0.1, 0] }, { kind: 'touching', touches: 'A2', leanMm: [0.7, 0] }),
    ).toMatchObject({ kind: 'touching', leanMm: [0.7, 0], touches: 'A2' })
  })
  it('a tip that is seen is not gone, and one that is gone is not leaning', () => {
    expect(together({ kind: 'snapped' }, { kind: 'lean', leanMm: [0.2, 0] })).toEqual({
      kind: 'lean',
      leanMm: [0.2, 0],
    })
    expect(
      together({ kind: 'lean', leanMm: [0.2, 0] }, { kind: 'snapped', maybe: 'folded', unsure: true }).kind,
    ).toBe('snapped')
  })
  it('never makes damage whole', () => {
    fc.assert(
      fc.property(anyMark, anyMark, (a, b) => {
        expect(isDamage(together(a, b))).toBe(true)
        expect(together(undefined, b)).toBe(b)
      }),
    )
  })
})
