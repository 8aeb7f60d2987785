import { leansTo } from './open-side'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMark } from '../model/field.testing'
import {
  afterStroke,
  damageKinds,
  damageWords,
  isDamage,
  isGone,
  sayMark,
  usualHeightMm,
  usualLeanMm,
} from './mark'
import type { Mark } from './mark'

describe('the way a lean goes', () => {
  it.each([
    [[0.3, 0], 'east'],
    [[0.2, 0.2], 'north-east'],
    [[0, -0.1], 'south'],
    [[-0.2, 0.01], 'west'],
    [[0.001, 0], null],
  ] as const)('%j: %s', (lean, way) => expect(leansTo(lean)).toBe(way))
})

describe('a mark in words', () => {
  it.each<[Mark, string]>([
    [{ kind: 'intact' }, 'sound'],
    [{ kind: 'low' }, 'low by about 0.15 mm'],
    [{ kind: 'low', heightMm: -0.19 }, 'low by 0.19 mm'],
    [{ kind: 'high', heightMm: 0.1 }, 'high by 0.10 mm'],
    [{ kind: 'lean', leanMm: [0.3, 0.4] }, 'leaning, 0.50 mm'],
    [{ kind: 'low', heightMm: -0.19, leanMm: [0, 0.14] }, 'low by 0.19 mm, leaning 0.14 mm'],
    [{ kind: 'lean', leanMm: [0.2, 0], heightMm: -0.05 }, 'leaning, 0.20 mm, low by 0.05 mm'],
    [{ kind: 'folded', touches: 'B3' }, 'folded flat, over B3'],
    [{ kind: 'touching', touches: 'B3', unsure: true }, 'touching, on B3, not sure'],
    [{ kind: 'twisted', leanMm: [0.001, 0] }, 'twisted, about 30°'],
    [{ kind: 'twisted', twistDeg: -45 }, 'twisted, 45°'],
    [{ kind: 'lean' }, 'leaning, about 0.20 mm'],
    [{ kind: 'touching' }, 'touching, which neighbour is not said'],
    [{ kind: 'snapped', maybe: 'folded', unsure: true }, 'snapped off or folded flat, not sure'],
  ])('%j', (mark, said) => expect(sayMark(mark)).toBe(said))

  it('after a stroke a mark is nearer its place or on its other side, and never farther', () => {
    fc.assert(
      fc.property(
        anyMark,
        fc.constantFrom('there', 'still short', 'past', 'still off', 'snapped'),
        (mark, result) => {
          const after = afterStroke(mark, { result })
          if (result === 'there') {
            expect(after).toBeNull()
            return
          }
          if (result === 'snapped') {
            expect(after).toEqual({ kind: 'snapped' })
            return
          }
          const far = (m: Mark) => Math.hypot(...usualLeanMm(m)) + Math.abs(usualHeightMm(m))
          expect(far(after!)).toBeLessThanOrEqual(far(mark) + 1e-9)
        },
      ),
    )
    expect(afterStroke({ kind: 'low', heightMm: -0.2 }, { result: 'past' })).toEqual({
      kind: 'high',
      heightMm: 0.06,
    })
    expect(afterStroke(undefined, { result: 'still short' })).toBeNull()
  })

  it('names its kind, whatever else it says', () => {
    fc.assert(
      fc.property(anyMark, (mark) => {
        expect(sayMark(mark)).not.toMatch(/undefined|NaN|-/)
        expect(sayMark(mark).startsWith(damageWords[mark.kind].word)).toBe(true)
      }),
    )
  })
})

describe('what is reckoned with when nothing was measured', () => {
  it('lies on the right side of level, and a figure always wins over it', () => {
    expect(usualHeightMm({ kind: 'low' })).toBeLessThan(0)
    expect(usualHeightMm({ kind: 'high' })).toBeGreaterThan(0)
    expect(usualLeanMm({ kind: 'low' })).toEqual([0, 0])
    fc.assert(
      fc.property(anyMark, fc.integer({ min: -30, max: 30 }), (mark, hundredths) => {
        const heightMm = hundredths / 100
        expect(usualHeightMm({ ...mark, heightMm })).toBe(heightMm)
        expect(usualLeanMm({ ...mark, leanMm: [heightMm, 0] })).toEqual([heightMm, 0])
      }),
    )
  })
  it('has words for both kinds of socket, and damage is all but intact', () => {
    for (const kind of damageKinds) {
      expect(damageWords[kind].land.length * damageWords[kind].pin.length).toBeGreaterThan(0)
      expect(isDamage({ kind })).toBe(kind !== 'intact')
    }
    expect(isDamage(undefined)).toBe(false)
    expect(damageKinds.filter((kind) => isGone({ kind }))).toEqual(['folded', 'tip gone', 'snapped'])
  })
})
