import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess, EYE_MISSES } from './assess'
import { contactVerdict } from '../contact/contact-force'
import { anyMarks, smallField } from '../model/field.testing'
import { functionLaw, parallelState } from '../contact/function-law'
import type { Marks } from './mark'
import { fieldOf } from '../model/socket'

const socket = smallField()
const many = { draws: 20_000 }
const all = socket.contacts.map((c) => c.name)
const isNear = (name: string, to: readonly string[]) => {
  const { named } = fieldOf(socket)
  const c = named.get(name)!
  return to.some((n) => Math.hypot(named.get(n)!.xMm - c.xMm, named.get(n)!.yMm - c.yMm) <= 3.2)
}
/** Three standard errors of a sampled share. */
const within = (p: number, draws = many.draws) => 3 * Math.sqrt(Math.max(p * (1 - p), 0.0001) / draws)

describe('assess', () => {
  it('finds nothing wrong with a healthy field', () => {
    expect(assess(socket, {})).toMatchObject({
      runs: 1,
      whole: 1,
      seats: 1,
      groups: [],
      shorts: [],
      symptom: 'nothing expected',
    })
  })
  it('gives one contact the odds of its verdict', () => {
    for (const mark of [
      { kind: 'low', heightMm: -0.11 },
      { kind: 'lean', leanMm: [0.22, 0.05] },
    ] as const) {
      const lost = 1 - contactVerdict(mark).makesContact
      const a = assess(socket, { A1: mark }, many)
      // The published table is wrong for one contact in a hundred, and then its neighbours' functions are drawn.
      const group = a.groups.find((g) => g.group === 'memory A')!
      expect(Math.abs(group.lost - lost)).toBeLessThan(0.012 + within(lost))
      expect(a.runs).toBeGreaterThan(0.98)
    }
  })
  it('moves all contacts by one shift, so that two alike are lost together more often than apart', () => {
    const mark = { kind: 'lean', leanMm: [0.25, 0] } as const
    const one = assess(socket, { A1: mark }, many).groups.find((g) => g.group === 'memory A')!.lost
    const both = assess(socket, { A1: mark, A8: mark }, many)
    const noStart = 1 - both.runs
    expect(noStart).toBeGreaterThan(one * one + 0.04)
    expect(noStart).toBeLessThan(one)
  })
  it('agrees with enumerating a group of parallel contacts', () => {
    const names = socket.contacts
      .filter((c) => c.group === 'core power')
      .slice(0, 9)
      .map((c) => c.name)
    const mark = { kind: 'low', heightMm: -0.1 } as const
    const p = 1 - contactVerdict(mark).makesContact
    const of = fieldOf(socket).totals.get('core power')!
    let failed = 0
    for (let pattern = 0; pattern < 2 ** names.length; pattern++) {
      const lost = pattern.toString(2).replaceAll('0', '').length
      if (parallelState(functionLaw['core power'], of, lost) === 'failed')
        failed += p ** lost * (1 - p) ** (names.length - lost)
    }
    const a = assess(socket, Object.fromEntries(names.map((n) => [n, mark])), many)
    expect(Math.abs(a.groups.find((g) => g.group === 'core power')!.lost - failed)).toBeLessThan(0.03)
  })
  it('stops the start for a rail short, not for a harmless touch', () => {
    expect(assess(socket, { C4: { kind: 'touching', touches: 'C5' } }).runs).toBeLessThan(0.01)
    expect(assess(socket, { C1: { kind: 'touching', touches: 'C2' } }).runs).toBeGreaterThan(0.95)
  })
  it('is unsure where nobody has a table', () => {
    const marks: Marks = { A1: { kind: 'snapped' } }
    const none = smallField('land-grid', 'none')
    const unknown = { ...none, contacts: none.contacts.map((c) => ({ ...c, group: 'unknown' as const })) }
    const a = assess(unknown, marks, many)
    expect(a.runs).toBeGreaterThan(0.8)
    expect(a.runs).toBeLessThan(0.99)
    expect(a.tableDoubt).toBeGreaterThan(0.02)
    expect(assess(socket, marks, many).tableDoubt).toBeLessThan(0.02)
  })
  it('does not know the odds of what nobody has looked at', () => {
    expect(assess(socket, {}, { ...many, looked: new Set() }).known).toBe(false)
    expect(assess(socket, {}, { ...many, looked: new Set(['A1']) })).toMatchObject({
      known: false,
      looked: 1,
    })
    expect(assess(socket, {}, { ...many, looked: new Set(all) }).known).toBe(true)
    expect(assess(socket, {}, many).known).toBe(true)
  })
  it('is never sure of a field that was looked at, and surer after another look', () => {
    const damage: Marks = Object.fromEntries(
      ['G1', 'G2', 'G3'].map((n) => [n, { kind: 'lean', leanMm: [0.1, 0] }]),
    )
    const at = (looks: number, marks: Marks = damage) =>
      assess(socket, marks, { draws: 60_000, looked: new Set(all), looks }).runs
    expect(at(1, {})).toBeLessThan(1)
    expect(at(1)).toBeLessThan(0.985)
    expect(at(2)).toBeGreaterThan(at(1))
    // Found d of which each is missed with m: d·m/(1−m) are still there, four in ten of them lost.
    const near = all.filter((name) => !damage[name] && isNear(name, Object.keys(damage)))
    const rate = ((3.5 * EYE_MISSES) / (1 - EYE_MISSES) / near.length) * 0.4
    const controls = near.filter((name) => fieldOf(socket).named.get(name)!.group === 'control').length
    const sound = assess(socket, damage, { draws: 60_000 }).runs
    expect(Math.abs(at(1) - sound * (1 - rate) ** controls)).toBeLessThan(0.01)
  })
  it('counts that something stays after “there”', () => {
    const done = { draws: 60_000, looked: new Set(all), straightened: ['H1', 'H2'] }
    const before = assess(socket, {}, { draws: 60_000, looked: new Set(all) }).runs
    expect(before - assess(socket, {}, done).runs).toBeGreaterThan(0.03)
  })
  it('says which channel is left when one is surely lost', () => {
    expect(assess(socket, { A1: { kind: 'snapped' } }, many).symptom).toBe(
      'starts, with memory in B only: channel A is dead',
    )
  })
  it('keeps a pin-grid CPU out for one pin that misses its hole', () => {
    const pins = smallField('pin-grid')
    const a = assess(pins, { C1: { kind: 'lean', leanMm: [0.4, 0] } }, many)
    expect(a.seats).toBeLessThan(0.01)
    expect(a.runs).toBe(0)
    expect(a.symptom).toBe('the CPU does not drop into place')
    expect(assess(pins, { C1: { kind: 'snapped' } }, many).seats).toBe(1)
  })
  it('counts a mark nobody is sure of as real three times in five', () => {
    const sure = assess(socket, { H1: { kind: 'snapped' } }, many)
    const unsure = assess(socket, { H1: { kind: 'snapped', unsure: true } }, many)
    expect(sure.runs).toBeLessThan(0.02)
    expect(Math.abs(1 - unsure.runs - 0.6)).toBeLessThan(0.02)
  })
  it('repeats itself for a seed and stays a probability for any marks', () => {
    fc.assert(
      fc.property(anyMarks(socket), fc.integer(), (marks, seed) => {
        const a = assess(socket, marks, { draws: 200, seed })
        expect(a).toEqual(assess(socket, marks, { draws: 200, seed }))
        for (const p of [a.runs, a.whole, a.seats, a.tableDoubt, ...a.groups.map((g) => g.lost)]) {
          expect(p).toBeGreaterThanOrEqual(0)
          expect(p).toBeLessThanOrEqual(1)
        }
        expect(a.whole).toBeLessThanOrEqual(a.runs + 1e-12)
      }),
      { numRuns: 40 },
    )
  })
  it('never likes a field better for another snapped contact', () => {
    const doing = socket.contacts.filter((c) => ['control', 'core power', 'memory A'].includes(c.group))
    fc.assert(
      fc.property(anyMarks(socket, 4), fc.constantFrom(...doing), (marks, c) => {
        if (marks[c.name]) return
        const before = assess(socket, marks, { draws: 3000 })
        const after = assess(socket, { ...marks, [c.name]: { kind: 'snapped' } }, { draws: 3000 })
        expect(after.runs).toBeLessThanOrEqual(before.runs + within(0.5, 3000) * 1.6)
      }),
      { numRuns: 10 },
    )
  })
})
