import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plainView } from '../map/display-list'
import { anyMark, smallField } from '../model/field.testing'
import { damageKinds, sayMark, usualHeightMm } from './mark'
import type { Mark } from './mark'
import { doubted, leaning, raised, withKind } from './marking'
import { neighboursOf } from '../model/walk'

const socket = smallField()
const kinds = fc.constantFrom(...damageKinds)
const hundredths = fc.integer({ min: -60, max: 60 }).map((n) => n / 100 + 0)
const set = (before: Mark, kind: Mark['kind'], view = plainView) => withKind(socket, view, 'B2', before, kind)
const intact: Mark = { kind: 'intact' }

describe('a kind set by hand', () => {
  it('is that kind, whatever was there', () => {
    fc.assert(
      fc.property(anyMark, kinds, (before, kind) => {
        expect(set(before, kind).kind).toBe(kind)
      }),
    )
  })
  it('never leaves a field that says nothing, nor a height of the wrong sign', () => {
    fc.assert(
      fc.property(anyMark, kinds, (before, kind) => {
        const mark = set(before, kind)
        expect(Object.values(mark)).not.toContain(undefined)
        expect(mark.heightMm).not.toBe(0)
        if (kind === 'low') expect(usualHeightMm(mark)).toBeLessThan(0)
        if (kind === 'high') expect(usualHeightMm(mark)).toBeGreaterThan(0)
      }),
    )
  })
  it('forgets all measures of what is gone or whole', () => {
    const before: Mark = { kind: 'low', heightMm: -0.2, leanMm: [0.1, 0], unsure: true }
    for (const kind of ['intact', 'snapped', 'tip gone'] as const) expect(set(before, kind)).toEqual({ kind })
  })
  it('leans first to the right of the eye, however the view is turned', () => {
    expect(set(intact, 'lean')).toEqual({ kind: 'lean', leanMm: [0.2, 0], about: true })
    expect(sayMark(set(intact, 'lean'))).toBe('leaning, about 0.20 mm')
    expect(leaning(set(intact, 'lean'), [0.25, 0]).about).toBeUndefined()
    expect(set(intact, 'lean', { ...plainView, mirrored: true }).leanMm).toEqual([-0.2, 0])
    expect(set(intact, 'lean', { ...plainView, quarterTurns: 1 }).leanMm).toEqual([0, 0.2])
    expect(set({ kind: 'low', leanMm: [0, 0.1] }, 'lean').leanMm).toEqual([0, 0.1])
  })
  it('goes round the neighbours when it is pressed again', () => {
    const around = neighboursOf(socket, 'B2')
    let mark = set(intact, 'touching')
    expect(mark, 'no neighbour is picked').toEqual({ kind: 'touching' })
    const seen = around.map(() => (mark = set(mark, 'touching')).touches)
    expect(seen).toEqual(around)
    expect(set(mark, 'touching').touches).toBe(around[0])
    expect(set(mark, 'folded').touches).toBe(around.at(-1))
    expect(set(mark, 'twisted').touches).toBeUndefined()
  })
})

describe('a lean', () => {
  it('makes an intact contact lean, and none makes it intact again', () => {
    expect(leaning(intact, [0.05, 0])).toEqual({ kind: 'lean', leanMm: [0.05, 0] })
    expect(leaning({ kind: 'lean', leanMm: [0.05, 0] }, [0, 0])).toEqual(intact)
  })
  it('keeps the kind of what is more than leaning', () => {
    expect(leaning({ kind: 'twisted', leanMm: [0.1, 0] }, [0, 0])).toEqual({ kind: 'twisted' })
    expect(leaning({ kind: 'low', heightMm: -0.1 }, [0.2, 0])).toEqual({
      kind: 'low',
      heightMm: -0.1,
      leanMm: [0.2, 0],
    })
    expect(leaning({ kind: 'snapped' }, [0.2, 0])).toEqual({ kind: 'lean', leanMm: [0.2, 0] })
  })
  it('there and back is where it was', () => {
    fc.assert(
      fc.property(anyMark, hundredths, hundredths, (before, x, y) => {
        if (before.kind === 'snapped' || before.kind === 'tip gone') return
        const there = leaning(before, [x, y])
        const back = leaning(there, before.leanMm ?? [0, 0])
        expect(back.leanMm ?? [0, 0]).toEqual(
          Math.hypot(...(before.leanMm ?? [0, 0])) < 0.005 ? [0, 0] : before.leanMm,
        )
      }),
    )
  })
})

describe('a height', () => {
  it('makes it low, high, or intact again', () => {
    expect(raised(intact, -0.05)).toEqual({ kind: 'low', heightMm: -0.05 })
    expect(raised({ kind: 'low', heightMm: -0.05 }, 0.05)).toEqual({ kind: 'high', heightMm: 0.05 })
    expect(raised({ kind: 'low', heightMm: -0.05 }, 0)).toEqual(intact)
  })
  it('taken away from what also leans leaves the lean', () => {
    expect(raised({ kind: 'low', heightMm: -0.05, leanMm: [0.1, 0] }, 0)).toEqual({
      kind: 'lean',
      leanMm: [0.1, 0],
    })
  })
  it('does not change what a twisted, touching or folded contact is', () => {
    expect(raised({ kind: 'twisted' }, -0.1)).toEqual({ kind: 'twisted', heightMm: -0.1 })
    expect(raised({ kind: 'touching', touches: 'B3' }, 0)).toEqual({ kind: 'touching', touches: 'B3' })
  })
  it('is of the sign its kind says', () => {
    fc.assert(
      fc.property(anyMark, hundredths, (before, mm) => {
        const mark = raised(before, mm)
        if (mark.kind === 'low') expect(mark.heightMm).toBeLessThan(0)
        if (mark.kind === 'high') expect(mark.heightMm).toBeGreaterThan(0)
      }),
    )
  })
})

it('doubt is switched on and off, never on an intact contact', () => {
  expect(doubted(intact)).toBe(intact)
  expect(doubted({ kind: 'low' })).toEqual({ kind: 'low', unsure: true })
  expect(doubted(doubted({ kind: 'low' }))).toEqual({ kind: 'low' })
})
