import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { liesAcross } from './across'
import { anyMarks, smallField } from '../model/field.testing'
import { isDamage } from './mark'
import type { Marks } from './mark'

const socket = smallField()
const across = (marks: Marks) => Object.fromEntries(liesAcross(socket, marks))

describe('who lies across whom', () => {
  it.each<[string, Marks, Record<string, string[]>]>([
    [
      'a folded one over what it was seen over',
      { D7: { kind: 'folded', touches: 'D8' }, D8: { kind: 'low' } },
      { D7: ['D8'] },
    ],
    [
      'one that touches its neighbour',
      { D7: { kind: 'touching', touches: 'D8' }, D8: { kind: 'low' } },
      { D7: ['D8'] },
    ],
    [
      'a tip dragged as far as the next foot, though nobody said so',
      { D7: { kind: 'lean', leanMm: [0.9, 0] }, D8: { kind: 'low' } },
      { D7: ['D8'] },
    ],
    ['a tip dragged not that far', { D7: { kind: 'lean', leanMm: [0.4, 0] }, D8: { kind: 'low' } }, {}],
    ['a tip dragged the other way', { D7: { kind: 'lean', leanMm: [-0.9, 0] }, D8: { kind: 'low' } }, {}],
    ['an intact neighbour waits for nobody', { D7: { kind: 'folded', touches: 'D8' } }, {}],
    ['what is not there lies across nobody', { D7: { kind: 'snapped' }, D8: { kind: 'low' } }, {}],
  ])('%s', (_, marks, expected) => expect(across(marks)).toEqual(expected))

  it('of two that lie across each other lets the more displaced go first, whichever it is', () => {
    const lean = (mm: number) => ({ kind: 'lean', leanMm: [mm, 0] }) as const
    expect(across({ D7: lean(0.95), D8: lean(-0.8) })).toEqual({ D7: ['D8'] })
    expect(across({ D7: lean(0.8), D8: lean(-0.95) })).toEqual({ D8: ['D7'] })
  })
  it('never holds both ways, and speaks only of damaged contacts', () => {
    fc.assert(
      fc.property(anyMarks(socket, 14), (marks) => {
        const found = liesAcross(socket, marks)
        for (const [name, unders] of found)
          for (const under of unders) {
            expect(under).not.toBe(name)
            expect(isDamage(marks[name]) && isDamage(marks[under])).toBe(true)
            expect(found.get(under) ?? []).not.toContain(name)
          }
      }),
    )
  })
})
