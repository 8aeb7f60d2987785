import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bladeChannels, pinLines } from './blade-channels'
import { anyMarks, smallField } from '../model/field.testing'
import { isGone } from '../damage/mark'
import type { Marks } from '../damage/mark'

const socket = smallField('pin-grid')
const lean = (x: number, y: number) => ({ kind: 'lean', leanMm: [x, y] }) as const

describe('pin rows and blade channels', () => {
  it('a row that leans the same way is one channel, pushed back from the side it leans to', () => {
    const marks: Marks = { B1: lean(0, 0.2), B2: lean(0, 0.15), B3: lean(0, 0.2), E1: lean(-0.1, 0) }
    const channels = bladeChannels(socket, marks)
    expect(channels[0]).toMatchObject({
      along: 'row',
      push: 'nearer',
      pins: ['B1', 'B2', 'B3'],
      blockedBy: [],
    })
    expect(channels[0]!.betweenMm).toEqual([2.5, 3.5])
    expect(channels[1]).toMatchObject({ along: 'column', push: 'right', pins: ['E1'] })
    expect(pinLines(socket, marks)[0]).toMatchObject({ along: 'row', atMm: 2.5, worst: 'B1' })
  })
  it('a flat pin across a channel is raised first, so that channel comes later', () => {
    const marks: Marks = { B1: lean(0, 0.2), B2: lean(0, 0.2), A5: { kind: 'folded' }, G7: lean(0.1, 0) }
    const channels = bladeChannels(socket, marks)
    expect(channels.map((c) => c.blockedBy)).toEqual([[], ['A5']])
  })
  it('every pin out of line is in a channel for each direction it leans in, and in no other', () => {
    fc.assert(
      fc.property(anyMarks(socket, 12), (marks) => {
        const channels = bladeChannels(socket, marks)
        for (const [name, mark] of Object.entries(marks)) {
          const [x, y] = mark.leanMm ?? [0, 0]
          const wanted = isGone(mark) ? 0 : Number(Math.abs(x) > 0.05) + Number(Math.abs(y) > 0.05)
          expect(channels.filter((c) => c.pins.includes(name)).length).toBe(wanted)
        }
      }),
    )
  })
  it('straight pins make no line and no channel', () => {
    expect([pinLines(socket, {}), bladeChannels(socket, {})]).toEqual([[], []])
  })
})
