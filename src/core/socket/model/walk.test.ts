import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fromView, toView } from '../map/display-list'
import type { View } from '../map/display-list'
import { smallField } from './field.testing'
import {
  contactAt,
  neighboursByKey,
  neighboursOf,
  nextUnseen,
  headingOf,
  onSocket,
  rowFrom,
  stepFrom,
  swathBetween,
} from './walk'

const socket = smallField()
const view: fc.Arbitrary<View> = fc.record({
  quarterTurns: fc.constantFrom(0 as const, 1 as const, 2 as const, 3 as const),
  mirrored: fc.boolean(),
  exaggeration: fc.constantFrom(1, 2, 4),
})
const plain: View = { quarterTurns: 0, mirrored: false, exaggeration: 1 }
const anyName = fc.constantFrom(...socket.contacts.map((c) => c.name))
const back = { left: 'right', right: 'left', up: 'down', down: 'up' } as const

it('a view is undone by its inverse', () => {
  const mm = fc.double({ min: -20, max: 20, noNaN: true })
  fc.assert(
    fc.property(view, mm, mm, (v, x, y) => {
      const [bx, by] = fromView(v, ...toView(v, x, y))
      expect(bx).toBeCloseTo(x, 12)
      expect(by).toBeCloseTo(y, 12)
    }),
  )
})

describe('stepFrom', () => {
  it('goes where the eye expects, over the empty middle, and stays at the edge', () => {
    expect(stepFrom(socket, plain, 'B2', 'right')).toBe('B3')
    expect(stepFrom(socket, plain, 'B2', 'up')).toBe('A2')
    expect(stepFrom(socket, plain, 'D3', 'right')).toBe('D6')
    expect(stepFrom(socket, plain, 'A1', 'left')).toBe('A1')
    expect(stepFrom(socket, { ...plain, mirrored: true }, 'B2', 'right')).toBe('B1')
    expect(stepFrom(socket, { ...plain, quarterTurns: 1 }, 'B2', 'right')).toBe('A2')
  })
  it('comes back by the opposite step, in every view', () => {
    fc.assert(
      fc.property(
        view,
        anyName,
        fc.constantFrom('left' as const, 'right' as const, 'up' as const, 'down' as const),
        (v, name, direction) => {
          const next = stepFrom(socket, v, name, direction)
          if (next !== name) expect(stepFrom(socket, v, next, back[direction])).toBe(name)
        },
      ),
    )
  })
  it('reaches every contact', () => {
    const reached = new Set(['A1'])
    const queue = ['A1']
    while (queue.length > 0) {
      const at = queue.pop()!
      for (const d of ['left', 'right', 'up', 'down'] as const) {
        const next = stepFrom(socket, plain, at, d)
        if (!reached.has(next)) {
          reached.add(next)
          queue.push(next)
        }
      }
    }
    expect(reached.size).toBe(socket.contacts.length)
  })
})

it('a lean to the right of the eye goes to the left of the socket in a mirrored view', () => {
  expect(onSocket(plain, headingOf.right)[0]).toBeCloseTo(1)
  expect(onSocket({ ...plain, mirrored: true }, headingOf.right)[0]).toBeCloseTo(-1)
  expect(onSocket({ ...plain, quarterTurns: 1 }, headingOf.right)[1]).toBeCloseTo(1)
})

it('contactAt finds the nearest foot within reach', () => {
  expect(contactAt(socket, -3.4, 3.6, 0.5)).toBe('A1')
  expect(contactAt(socket, 0, 0, 0.4)).toBeNull()
})

it('swathBetween takes what lies in the rectangle of the view', () => {
  const a = toView(plain, -3.5, 3.5)
  const b = toView(plain, -1.5, 2.5)
  expect(swathBetween(socket, plain, b, a).sort()).toEqual(['A1', 'A2', 'A3', 'B1', 'B2', 'B3'])
})

it('neighboursOf gives the nearest first and never itself', () => {
  expect(neighboursOf(socket, 'B2').slice(0, 4).sort()).toEqual(['A2', 'B1', 'B3', 'C2'])
  expect(neighboursOf(socket, 'B2')).toHaveLength(8)
})

it('neighboursByKey names the eight round a contact as the eye sees them', () => {
  const [a, h] = [neighboursByKey(socket, plain, 'B2'), neighboursByKey(socket, plain, 'A1')]
  expect(a).toEqual({
    '7': 'A1',
    '8': 'A2',
    '9': 'A3',
    '4': 'B1',
    '6': 'B3',
    '1': 'C1',
    '2': 'C2',
    '3': 'C3',
  })
  expect(h).toEqual({
    '7': null,
    '8': null,
    '9': null,
    '4': null,
    '6': 'A2',
    '1': null,
    '2': 'B1',
    '3': 'B2',
  })
  expect(neighboursByKey(socket, { ...plain, mirrored: true }, 'B2')['4']).toBe('B3')
  expect(neighboursByKey(socket, { ...plain, quarterTurns: 1 }, 'B2')['9']).toBe('A1')
})

it('nextUnseen goes on from here, round again, and ends', () => {
  const all = Object.fromEntries(socket.contacts.map((c) => [c.name, true as const]))
  const { A3: _, ...butA3 } = all
  expect(nextUnseen(socket, {}, {}, 'A1')).toBe('A2')
  expect(nextUnseen(socket, butA3, {}, 'H8')).toBe('A3')
  expect(nextUnseen(socket, butA3, { A3: { kind: 'low' } }, 'H8')).toBeNull()
})

it('rowFrom goes along the row as it is seen and stops at its end', () => {
  expect(rowFrom(socket, plain, 'B5', 10)).toEqual(['B5', 'B6', 'B7', 'B8'])
  expect(rowFrom(socket, plain, 'B1', 3)).toEqual(['B1', 'B2', 'B3'])
})
