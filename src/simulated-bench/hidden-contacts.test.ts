import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runToEnd } from '@/core/run-to-end'
import { anyMarks, smallField } from '@/core/socket/model/field.testing'
import { isDamage, isGone } from '@/core/socket/damage/mark'
import { drawDamage, usualDamage } from './drawn-damage'
import { afterStrokes, trulyMarked } from './hidden-contacts'
import { plainShot, takePhoto } from './microscope-camera'

const socket = smallField()
const names = new Set(socket.contacts.map((c) => c.name))

describe('hidden contacts', () => {
  it('hold what a person was sure of, and a few nobody has seen', () => {
    fc.assert(
      fc.property(anyMarks(socket, 6), fc.integer({ min: 1, max: 1e6 }), (marks, seed) => {
        const truth = trulyMarked(socket, marks, seed)
        for (const [name, mark] of Object.entries(marks))
          if (!mark.unsure && isDamage(mark)) expect(isGone(truth[name]!)).toBe(isGone(mark))
        expect(Object.keys(truth).length).toBeGreaterThanOrEqual(
          Object.values(marks).filter((m) => !m.unsure).length,
        )
        expect(Object.values(truth).every((m) => !m.unsure && !m.maybe)).toBe(true)
        expect(trulyMarked(socket, marks, seed)).toEqual(truth)
      }),
    )
  })
  it('follow the strokes on the tape', () => {
    const truth = {
      A1: { kind: 'lean', leanMm: [0.3, 0] },
      A2: { kind: 'low', heightMm: -0.2 },
      A3: { kind: 'lean', leanMm: [0.2, 0] },
    } as const
    expect(
      afterStrokes(truth, [
        { contact: 'A1', result: 'there' },
        { contact: 'A2', result: 'still short' },
        { contact: 'A3', result: 'snapped' },
      ]),
    ).toEqual({
      A2: { kind: 'low', heightMm: -0.07 },
      A3: { kind: 'snapped' },
    })
  })
})

describe('drawn damage', () => {
  it('is on contacts of the field, as many as asked, the same for the same seed', () => {
    const field = { ...socket }
    const few = {
      ...usualDamage,
      leaning: 3,
      swaths: 0,
      heights: 2,
      twisted: 1,
      touching: 1,
      folded: 1,
      gone: 1,
      snapped: 1,
      dirty: 1,
    }
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const marks = drawDamage(field, seed, few)
        expect(Object.keys(marks).length).toBe(11)
        expect(Object.keys(marks).every((n) => names.has(n))).toBe(true)
        expect(drawDamage(field, seed, few)).toEqual(marks)
      }),
    )
  })
})

describe('the microscope camera', () => {
  const shot = { ...plainShot, widthPx: 300, heightPx: 280, pxPerMm: 34 }
  const photo = (change = {}, marks = {}) => runToEnd(takePhoto(socket, marks, { ...shot, ...change }))
  it('takes the same picture for the same seed, another for another', () => {
    expect(photo().image.grey).toEqual(photo().image.grey)
    expect(photo({ seed: 2 }).image.grey).not.toEqual(photo().image.grey)
  })
  it('the tips are where it says: bright there, dark where one is gone', () => {
    const quiet = { noise: 0, glare: 0, blurPx: 0.6, gradient: 0 }
    const plain = photo(quiet)
    const gone = photo(quiet, { C3: { kind: 'snapped' } })
    const at = (p: typeof plain, name: string) => {
      const [x, y] = p.tips.find((t) => t.name === name)!.px
      return p.image.grey[Math.round(y) * shot.widthPx + Math.round(x)]!
    }
    for (const c of socket.contacts) expect(at(plain, c.name)).toBeGreaterThan(110)
    expect(at(gone, 'C3')).toBeLessThan(40)
    expect(gone.tips.find((t) => t.name === 'C3')!.gone).toBe(true)
  })
  it('shows a raised tip shifted away from the eye when it leans over', () => {
    const quiet = { noise: 0, glare: 0 }
    const tip = (tiltDeg: number, heightMm: number) =>
      photo(
        { ...quiet, tiltDeg, tiltTowardsDeg: 0, turnDeg: 0, lens: 0 },
        { C3: { kind: heightMm < 0 ? 'low' : 'high', heightMm } },
      ).tips.find((t) => t.name === 'C3')!.px[0]
    expect(tip(35, 0.2) - tip(35, -0.2)).toBeLessThan(-0.4 * Math.sin((35 * Math.PI) / 180) * 34 * 0.9)
    expect(Math.abs(tip(0, 0.2) - tip(0, -0.2))).toBeLessThan(0.5)
  })
})
