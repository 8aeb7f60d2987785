import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMarks, smallField } from '../model/field.testing'
import type { Pass } from '../damage/pass'
import { AT_ONE_LOOK, missedBefore, nextStretch, sweepOrder } from './sweep'

const socket = smallField()
const pass = (found: Pass['found'], looked: readonly string[]): Pass => ({
  name: 'p',
  at: '',
  marks: found,
  found,
  looked: Object.fromEntries(looked.map((n) => [n, true as const])),
})

describe('sweep', () => {
  it('has every contact in exactly one look, ten at most, in one row', () => {
    fc.assert(
      fc.property(anyMarks(socket), fc.subarray(socket.contacts.map((c) => c.name)), (marks, missed) => {
        const order = sweepOrder(socket, marks, missed)
        expect(order.flatMap((s) => s.contacts).sort()).toEqual(socket.contacts.map((c) => c.name).sort())
        for (const { contacts } of order) {
          expect(contacts.length).toBeLessThanOrEqual(AT_ONE_LOOK)
          expect(
            new Set(contacts.map((name) => socket.contacts.find((c) => c.name === name)!.yMm)).size,
          ).toBe(1)
        }
      }),
    )
  })
  it('one key each look proves the whole field', () => {
    const order = sweepOrder(socket, {}, [])
    const looked: Record<string, true> = {}
    let presses = 0
    for (let next = nextStretch(order, looked); next.stretch; next = nextStretch(order, looked)) {
      for (const name of next.stretch.contacts) looked[name] = true
      presses++
    }
    expect(Object.keys(looked).length).toBe(socket.contacts.length)
    expect(presses).toBe(order.length)
    expect(nextStretch(order, looked)).toEqual({ stretch: null, left: 0, contactsLeft: 0 })
  })
  it('what was missed before comes first, then what is close to damage', () => {
    const order = sweepOrder(socket, { H8: { kind: 'low' } }, ['C1'])
    expect(order[0]).toMatchObject({ why: 'C1 was missed before' })
    expect(order[0]!.contacts).toContain('C1')
    expect(order[1]!.why).toMatch(/close to damage/)
    expect(order.at(-1)!.why).toBe('')
  })
  it('missed is what was looked at, called good, and found later without having been worked on', () => {
    const passes = [
      pass({ A1: { kind: 'low' } }, ['A1', 'A2', 'A3']),
      pass({ A1: { kind: 'low' }, A2: { kind: 'lean' }, A3: { kind: 'lean' }, B1: { kind: 'low' } }, [
        'A2',
        'A3',
        'B1',
      ]),
    ]
    expect(missedBefore(passes, [{ contact: 'A3' }])).toEqual(['A2'])
    expect(missedBefore(passes.slice(0, 1), [])).toEqual([])
  })
  it('turns round at the end of each row', () => {
    const order = sweepOrder(socket, {}).filter((s) => s.why === '')
    expect(order[0]!.contacts[0]).toBe('A1')
    expect(order[1]!.contacts[0]).toBe('B8')
  })
})
