import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMark, anyMarks, smallField } from '../model/field.testing'
import { damageKinds, isDamage } from '../damage/mark'
import type { Mark, Marks } from '../damage/mark'
import { compass } from '../damage/open-side'
import { fieldOf } from '../model/socket'
import { handlingOf, slipOdds, techniques } from './technique'

const land = smallField()
const pins = smallField('pin-grid')
const at = (socket: typeof land, name: string) => fieldOf(socket).named.get(name)!
const on = (socket: typeof land, name: string, mark: Mark, others: Marks = {}, strokesBefore = 0) =>
  handlingOf(socket, at(socket, name), mark, { ...others, [name]: mark }, strokesBefore)

describe('what a contact in a land grid needs', () => {
  it.each<[string, Mark, string, string]>([
    ['pressed down', { kind: 'low', heightMm: -0.15 }, 'lift', 'sewing needle'],
    ['standing up', { kind: 'high', heightMm: 0.1 }, 'press', 'sewing needle'],
    ['dragged sideways', { kind: 'lean', leanMm: [0.2, 0] }, 'push', 'sewing needle'],
    [
      'leaning, but lower still',
      { kind: 'lean', leanMm: [0.05, 0], heightMm: -0.2 },
      'lift',
      'sewing needle',
    ],
    [
      'leaning, but higher still',
      { kind: 'lean', leanMm: [0.05, 0], heightMm: 0.2 },
      'press',
      'sewing needle',
    ],
    ['turned', { kind: 'twisted' }, 'untwist', 'two fine tweezers'],
    ['on its neighbour', { kind: 'touching', touches: 'B3' }, 'part', 'two fine tweezers'],
    ['on a neighbour nobody has named', { kind: 'touching' }, 'part', 'two fine tweezers'],
    ['lying flat', { kind: 'folded', touches: 'B3' }, 'unfold', 'sewing needle'],
    ['without a tip', { kind: 'tip gone' }, 'replace', 'two fine tweezers'],
    ['not there', { kind: 'snapped' }, 'replace', 'hot air'],
    ['with something in it', { kind: 'lodged' }, 'clear', 'wooden stick'],
    ['under paste', { kind: 'paste' }, 'clean', 'damp swab'],
  ])('%s', (_, mark, technique, tool) => {
    expect(on(land, 'B2', mark)).toMatchObject({ contact: 'B2', technique, tool })
  })
  it('never wipes paste across the tips, and keeps what was lodged', () => {
    expect(on(land, 'B2', { kind: 'paste' }).say).toMatch(/never wipe/)
    expect(on(land, 'B2', { kind: 'lodged' }).say).toMatch(/keep it and log it/)
  })
  it('only looks, while nobody is sure', () => {
    for (const kind of damageKinds)
      expect(on(land, 'B2', { kind, unsure: true })).toMatchObject({
        technique: 'look',
        strokes: 0,
        snaps: 0,
        overTravelMm: 0,
      })
  })
  it('pushes back the way it came, and away from the neighbour it touches', () => {
    expect(on(land, 'D8', { kind: 'lean', leanMm: [0.2, 0] }).from).toBe('east')
    expect(on(land, 'D1', { kind: 'lean', leanMm: [-0.2, 0] }).from).toBe('west')
    expect(on(land, 'A4', { kind: 'lean', leanMm: [0, 0.2] }).from).toBe('north')
    // D7 touches D8, east of it: it is taken west, so the tool comes from the east side of the pair.
    const parting = on(land, 'D7', { kind: 'touching', touches: 'D8' })
    expect(parting.say).toBe(`separate from D8, from the ${parting.from}`)
    expect(parting.from).toMatch(/east/)
  })
  it('loses about half of the folded ones', () => {
    const { snaps } = on(land, 'B2', { kind: 'folded', touches: 'B3' })
    expect(snaps).toBeGreaterThan(0.4)
    expect(snaps).toBeLessThan(0.65)
  })
  it('takes a folded one up in several steps and says that it may well break', () => {
    const folded = on(land, 'B2', { kind: 'folded', touches: 'B3' })
    expect(folded.strokes).toBeGreaterThan(2)
    expect(folded.say).toContain(`in ${folded.strokes} small steps`)
    const leaning = on(land, 'B2', { kind: 'lean', leanMm: [0.2, 0] })
    expect(folded.snaps).toBeGreaterThan(5 * leaning.snaps)
    expect(folded.minutes).toBeGreaterThan(leaning.minutes)
  })
})

describe('what a pin of a pin grid needs', () => {
  const north: Mark = { kind: 'lean', leanMm: [0, 0.3] }
  it('is the tube for one pin, the blade for a row that leans alike', () => {
    expect(on(pins, 'F2', north)).toMatchObject({ technique: 'tube', tool: 'hollow tube' })
    expect(on(pins, 'F2', north, { F1: north, F3: north })).toMatchObject({
      technique: 'blade',
      tool: 'thin blunt blade',
    })
    expect(on(pins, 'F2', north, { F1: north, F3: north }).say).toMatch(/blade away from the hand/)
  })
  it.each<[string, Marks]>([
    ['its neighbours lean the other way', { F1: { kind: 'lean', leanMm: [0, -0.3] }, F3: north }],
    ['the others are in another row', { E2: north, G2: north }],
    ['the others are low, not leaning', { F1: { kind: 'low' }, F3: { kind: 'low' } }],
    ['they stand too far along the row', { F5: north, F6: north }],
  ])('stays the tube when %s', (_, others) => {
    expect(on(pins, 'F2', north, others).technique).toBe('tube')
  })
  it('raises a flat pin in steps', () => {
    const flat = on(pins, 'B2', { kind: 'folded', touches: 'B3' })
    expect(flat).toMatchObject({ technique: 'tube', tool: 'hollow tube' })
    expect(flat.say).toMatch(/raise it with the tube/)
  })
})

describe('any handling', () => {
  it('has odds between the slip of the hand and one, a side only of the eight, and words without gaps', () => {
    fc.assert(
      fc.property(anyMarks(land, 10), fc.constantFrom(land, pins), (marks, socket) => {
        for (const [name, mark] of Object.entries(marks)) {
          if (!isDamage(mark)) continue
          const h = handlingOf(socket, at(socket, name), mark, marks)
          expect(techniques).toContain(h.technique)
          expect(h.snaps).toBeGreaterThanOrEqual(slipOdds[h.technique] - 1e-12)
          expect(h.snaps).toBeLessThanOrEqual(1)
          expect(h.minutes).toBeGreaterThan(0)
          expect(h.overTravelMm).toBeGreaterThanOrEqual(0)
          if (h.from !== null) expect(compass).toContain(h.from)
          expect(h.say).not.toMatch(/undefined|null|NaN/)
          for (const other of h.blockedBy) {
            expect(other).not.toBe(name)
            expect(['high', 'folded']).toContain(marks[other]!.kind)
          }
        }
      }),
    )
  })
  it('risks more with every stroke that went before', () => {
    fc.assert(
      fc.property(anyMark, fc.nat({ max: 6 }), fc.nat({ max: 6 }), (mark, before, more) => {
        const once = on(land, 'B2', mark, {}, before).snaps
        const later = on(land, 'B2', mark, {}, before + more).snaps
        expect(later).toBeGreaterThanOrEqual(once - 1e-12)
      }),
    )
  })
  it('risks more the further it has gone', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 60 }), fc.integer({ min: 0, max: 40 }), (a, further) => {
        const lean = (hundredths: number): Mark => ({ kind: 'lean', leanMm: [hundredths / 100, 0] })
        expect(on(land, 'D8', lean(a + further)).snaps).toBeGreaterThanOrEqual(
          on(land, 'D8', lean(a)).snaps - 1e-12,
        )
      }),
    )
  })
})
