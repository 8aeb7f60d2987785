import { describe, expect, it } from 'vitest'
import { jobState } from '../job/job-state'
import { lastIron } from '../job/last-iron'
import { gateOf } from '../job/gate'
import { evidenceOf } from '../job/evidence'
import { tape } from '../job/tape.testing'
import type { TestTape } from '../job/tape.testing'
import { countsOwed, photoOwed } from './before-iron'
import { countedShort, expectedAt, sayCount } from './count'
import { partsStep } from './next-step'

const state = (t: TestTape) => jobState(t.entries)
const chipPlace = 'at the firmware chip'
const counted = (t: TestTape, count: number, of?: number) =>
  t.put('parts counted', { place: chipPlace, count, ...(of === undefined ? {} : { of }) })
const fit = (t: TestTape, ref: string) => t.put('part', { ref, did: 'fitted' })
const said = (t: TestTape) => evidenceOf(state(t), null, {}).evidence.map((e) => `${e.test}: ${e.outcome}`)

describe('the iron', () => {
  it('was last there when a part was lifted or soldered, or the chip by more than a hand', () => {
    const t = tape()
    expect(lastIron(state(t))).toBeNull()
    fit(t, 'R1').put('part', { ref: 'R1', did: 'measured', value: '33 Ω' })
    expect(lastIron(state(t))).toEqual({ seq: 1, what: 'R1 was fitted' })
    t.put('chip moved', { to: 'off', by: 'hand', despite: [] })
    expect(lastIron(state(t))).toEqual({ seq: 1, what: 'R1 was fitted' })
    t.put('chip moved', { to: 'on', by: 'iron', despite: [] })
    expect(lastIron(state(t))).toEqual({ seq: 4, what: 'the firmware chip was fitted' })
    t.put('chip moved', { to: 'off', by: 'hot air', despite: [] })
    expect(lastIron(state(t))?.what).toBe('the firmware chip was taken off')
  })
})

describe('a photo before the iron', () => {
  it('is owed while there is none, and again after the iron was there', () => {
    const iron = { seq: 6, what: 'U7 was taken off' }
    expect(photoOwed([], null)).toBe('No photo of this board yet')
    expect(photoOwed([{ seq: 4 }], null)).toBeNull()
    expect(photoOwed([{ seq: 4 }], iron)).toBe('No photo since U7 was taken off')
    expect(photoOwed([{ seq: 4 }, { seq: 8 }], iron)).toBeNull()
  })
})

describe('small parts counted at a place', () => {
  it('are owed again once the iron was there', () => {
    const t = counted(tape(), 14)
    expect(countsOwed(state(t).parts, lastIron(state(t)))).toEqual([])
    fit(t, 'R9').put('part', { ref: 'R9', did: 'measured', value: '33 Ω' })
    const { parts } = state(t)
    expect(countsOwed(parts, lastIron(state(t))).map((c) => c.seq)).toEqual([1])
    expect(partsStep(parts, lastIron(state(t))).say).toBe(
      'Count the small parts at the firmware chip again: 14 should be there.',
    )
    counted(t, 14, 14)
    expect(countsOwed(state(t).parts, lastIron(state(t)))).toEqual([])
  })
  it('should be those counted last, with what was fitted there and without what was taken off', () => {
    const t = counted(tape().put('part', { ref: 'R214', did: 'found missing', place: chipPlace }), 14)
    const at = () => expectedAt(state(t).parts, chipPlace)
    expect(at()).toBe(14)
    expect(expectedAt(state(t).parts, 'at memory')).toBeNull()
    fit(t, 'R214')
    expect(at()).toBe(15)
    fit(t, 'R1').put('part', { ref: 'C3', did: 'taken off', place: chipPlace })
    expect(at()).toBe(14)
  })
  it('that are fewer shut the gate and speak for what is gone there, until they are all there or it has a name', () => {
    const t = counted(tape(), 14)
    const loose = () =>
      gateOf(state(t), null)
        .reasons.filter((r) => r.text.includes('from the count'))
        .map((r) => r.code)
    expect(said(t)).toEqual([])
    expect(loose()).toEqual([])
    counted(t, 12, 14)
    expect(said(t)).toEqual(['round the chip: another part gone'])
    expect(countedShort(state(t).parts)).toHaveLength(1)
    expect(loose()).toHaveLength(1)
    const named = jobState(
      tape()
        .put('parts counted', { place: chipPlace, count: 12, of: 14 })
        .put('part', { ref: 'R7', did: 'found missing', place: chipPlace }).entries,
    )
    expect(evidenceOf(named, null, {}).evidence.map((e) => e.outcome)).toEqual(['a resistor gone'])
    counted(t, 14, 14)
    expect(said(t)).toEqual([])
    expect(loose()).toEqual([])
  })
  it('that fell short are not made whole by counting what is left once more, nor by a count of nothing told', () => {
    const shut = (t: TestTape) =>
      gateOf(state(t), null).reasons.some((r) => r.text.includes('from the count'))
    const t = counted(counted(tape(), 14), 12, 14)
    expect(expectedAt(state(t).parts, chipPlace)).toBe(14)
    counted(t, 12)
    expect(shut(t)).toBe(true)
    expect(said(t)).toEqual(['round the chip: another part gone'])
    expect(expectedAt(state(t).parts, chipPlace)).toBe(14)
    // One of the two is named: one fewer should be there, and the other is still gone.
    t.put('part', { ref: 'R7', did: 'found missing', place: chipPlace })
    expect(expectedAt(state(t).parts, chipPlace)).toBe(13)
    fit(t, 'R7')
    expect(expectedAt(state(t).parts, chipPlace)).toBe(14)
    expect(shut(t)).toBe(true)
    counted(t, 14, 14)
    expect(shut(t)).toBe(false)
  })
  it('fitted with no word of what was missing still owe a count', () => {
    const t = counted(counted(tape(), 14), 13, 14)
    t.put('part', { ref: 'R9', did: 'fitted', place: chipPlace })
    expect(said(t)).toEqual(['round the chip: another part gone'])
    expect(countsOwed(state(t).parts, lastIron(state(t)))).toHaveLength(1)
  })
  it('are said as they were counted', () => {
    expect(sayCount({ place: chipPlace, count: 1 })).toBe('1 small part counted, at the firmware chip')
    expect(sayCount({ place: chipPlace, count: 14, of: 14 })).toContain('at the firmware chip, of 14')
    expect(sayCount({ place: chipPlace, count: 12, of: 14 })).toContain('of 14: 2 missing')
  })
})
