import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { chosenBy, editedField, editField, sayEdit } from './edit-field'
import type { EditedField, FieldEdit } from './edit-field'
import { generateField } from './generate'
import { trusts } from './socket'
import { functionGroups } from '../../board/function-group'

const socket = generateField({
  id: 'f',
  name: 'field',
  kind: 'land-grid',
  pitchMm: 1,
  rows: 6,
  columns: 8,
  holes: [{ rows: [2, 3], columns: [3, 4] }],
  beamDeg: [45, 225],
  regions: [{ rows: [0, 1], columns: [0, 7], group: 'memory A', net: 'MA', trust: 'shared' }],
})
const whole: EditedField = { contacts: socket.contacts, gaps: [] }
const names = socket.contacts.map((c) => c.name)
const done = (edit: FieldEdit, field = whole): EditedField => {
  const next = editField(field, edit)
  if (typeof next === 'string') throw new Error(next)
  return next
}
const named = (field: EditedField, name: string) => field.contacts.find((c) => c.name === name)!

const someNames = fc.uniqueArray(fc.constantFrom(...names, 'Z9'), { minLength: 1, maxLength: 12 })
const anyEdit: fc.Arbitrary<FieldEdit> = fc.oneof(
  fc.record({ edit: fc.constantFrom('gap' as const, 'fill' as const), contacts: someNames }),
  fc.record({ edit: fc.constant('beams' as const), contacts: someNames, beamDeg: between(-720, 720) }),
  fc.record({
    edit: fc.constant('function' as const),
    contacts: someNames,
    group: fc.constantFrom(...functionGroups),
    trust: fc.constantFrom(...trusts),
  }),
  fc.record({
    edit: fc.constant('move' as const),
    contacts: someNames,
    byMm: fc.tuple(between(-3, 3), between(-3, 3)),
  }),
  fc.record({
    edit: fc.constant('rename' as const),
    contact: fc.constantFrom(...names),
    as: fc.constantFrom(...names, 'zz9', '9', 'Q1'),
  }),
  fc.record({
    edit: fc.constant('add' as const),
    contact: fc.constantFrom(...names.slice(0, 4), 'ZA1', 'x'),
    atMm: fc.tuple(between(-120, 120), between(-8, 8)),
  }),
)

describe('a field of the library, edited', () => {
  it('stays a field whatever is done: names and places stand once, nothing is lost but what is taken out', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
        const { contacts, gaps, pitchMm } = editedField(socket, edits)
        expect(new Set(contacts.map((c) => c.name)).size).toBe(contacts.length)
        expect(contacts.length).toBeGreaterThanOrEqual(4)
        expect(pitchMm).toBeGreaterThanOrEqual(0.05)
        for (const c of contacts) {
          expect(c.name).toMatch(/^[A-Z]{1,3}\d{1,3}$/)
          expect(Math.abs(c.xMm)).toBeLessThanOrEqual(100)
          expect(c.beamDeg).toBeGreaterThanOrEqual(0)
          expect(c.beamDeg).toBeLessThan(360)
        }
        const standing = new Set(contacts.map((c) => c.name))
        for (const g of gaps) expect(standing.has(g.name)).toBe(false)
      }),
    )
  })
  it('a gap filled again is as it was, and undone is as if never done', () => {
    fc.assert(
      fc.property(someNames, (contacts) => {
        const there = contacts.filter((n) => names.includes(n))
        const out = done({ edit: 'gap', contacts })
        expect(out.gaps.map((g) => g.name).sort()).toEqual([...there].sort())
        const back = done({ edit: 'fill', contacts }, out)
        const byName = (f: EditedField) => [...f.contacts].sort((a, b) => (a.name < b.name ? -1 : 1))
        expect(byName(back)).toEqual(byName(whole))
        expect(editedField(socket, [])).toMatchObject(whole)
      }),
    )
  })
  it('turns beams in part of the field only', () => {
    const field = done({ edit: 'beams', contacts: ['A1', 'A2'], beamDeg: -45 })
    expect(named(field, 'A1').beamDeg).toBe(315)
    expect(named(field, 'A3')).toEqual(named(whole, 'A3'))
  })
  it('a signal keeps its net, power and ground share one, and what was ground is called by its name', () => {
    const one = done({ edit: 'function', contacts: ['A1', 'A2'], group: 'ground', trust: 'published' })
    expect(named(one, 'A1')).toMatchObject({ group: 'ground', net: 'GND', trust: 'published' })
    const two = done({ edit: 'function', contacts: ['A1', 'A3'], group: 'clock', trust: 'region' }, one)
    expect(named(two, 'A1').net).toBe('A1')
    expect(named(two, 'A3').net).toBe(named(whole, 'A3').net)
    const three = done(
      { edit: 'function', contacts: ['C1', 'C2'], group: 'core power', trust: 'region' },
      two,
    )
    expect(named(three, 'C1').net).toBe(named(three, 'C2').net)
  })
  it('adds a contact with the beam of the nearest, in the middle of the hole too', () => {
    const field = done({ edit: 'add', contact: ' c4', atMm: [-0.5, 0.5] })
    expect(named(field, 'C4')).toEqual({
      name: 'C4',
      xMm: -0.5,
      yMm: 0.5,
      group: 'unknown',
      net: 'C4',
      beamDeg: 45,
      trust: 'none',
    })
    expect(editedField(socket, [{ edit: 'add', contact: 'C4', atMm: [-0.9, 0.5] }]).pitchMm).toBeCloseTo(
      0.6,
      6,
    )
  })
  it('renames in its place, its own net with it', () => {
    const field = done({ edit: 'rename', contact: 'C1', as: 'za1' })
    expect(field.contacts.findIndex((c) => c.name === 'ZA1')).toBe(names.indexOf('C1'))
    expect(named(field, 'ZA1').net).toBe('ZA1')
  })
  it.each<readonly [FieldEdit, RegExp]>([
    [{ edit: 'gap', contacts: names.slice(2) }, /keeps 4 contacts/],
    [{ edit: 'rename', contact: 'A1', as: 'A2' }, /there is a contact A2 already/],
    [{ edit: 'rename', contact: 'A1', as: '17' }, /“17” is not a contact name/],
    [{ edit: 'rename', contact: 'Z9', as: 'Z8' }, /no contact Z9/],
    [{ edit: 'add', contact: 'Z9', atMm: [-3.5, 2.5] }, /would stand in one place/],
    [{ edit: 'add', contact: 'Z9', atMm: [140, 0] }, /Z9 would lie more than 100 mm/],
    [{ edit: 'move', contacts: ['A1'], byMm: [1, 0] }, /A1 and A2 would stand in one place/],
    [{ edit: 'move', contacts: ['A1'], byMm: [NaN, 0] }, /two numbers/],
    [{ edit: 'beams', contacts: ['A1'], beamDeg: NaN }, /number of degrees/],
  ])('refuses %j', (edit, why) => expect(editField(whole, edit)).toMatch(why))
  it('says what was done', () => {
    expect(sayEdit({ edit: 'gap', contacts: names.slice(0, 5) })).toBe('A1 … A5, 5 contacts taken out')
    expect(sayEdit({ edit: 'beams', contacts: ['A1', 'B2'], beamDeg: 90 })).toBe(
      'A1 and B2: beams run to 90°',
    )
  })
})

describe('contacts said in words', () => {
  it.each([
    ['a1 b2', ['A1', 'A2', 'B1', 'B2']],
    ['B2 A1', ['A1', 'A2', 'B1', 'B2']],
    ['A1, C8', ['A1', 'C8']],
    ['row C', ['C1', 'C2', 'C3', 'C6', 'C7', 'C8']],
    ['column 4', ['A4', 'B4', 'E4', 'F4']],
    ['C3 D6', ['C3', 'C6', 'D3', 'D6']],
  ])('%s', (words, wanted) => expect(chosenBy(socket.contacts, words)).toEqual(wanted))
  it('a function, a half, all', () => {
    expect(chosenBy(socket.contacts, 'Memory a')).toHaveLength(16)
    expect(chosenBy(socket.contacts, 'left')).toHaveLength(22)
    expect(chosenBy(socket.contacts, 'all')).toHaveLength(44)
  })
  it.each(['', 'X9', 'A1 X9', 'somewhere'])('“%s” is not understood, and what is meant is said', (words) =>
    expect(chosenBy(socket.contacts, words)).toMatch(/two corners \(A1 H12\)/),
  )
})
