import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contactColumns, contactRows, readContactTable, smallestSpacing } from './contact-table'
import type { Row } from '../../tables/finding'
import { smallField } from '../model/field.testing'

const good: Row = {
  name: 'A1',
  x_mm: '0',
  y_mm: '0',
  group: 'ground',
  net: 'GND',
  beam_deg: '45',
  trust: 'shared',
}
const read = (...rows: Row[]) => readContactTable(rows, contactColumns)

describe('readContactTable', () => {
  it('reads back what it wrote', () => {
    const { contacts } = smallField()
    const rows = contactRows(contacts).map((row) =>
      Object.fromEntries(contactColumns.map((column, i) => [column, row[i]])),
    )
    const table = read(...rows)
    expect(table.findings).toEqual([])
    expect(table.contacts).toEqual(contacts)
    expect(table.pitchMm).toBe(1)
  })
  it.each([
    ['a name that is none', { ...good, name: '12' }, 'name', /letters then a number, like M31/],
    ['a number that is none', { ...good, x_mm: 'NaN' }, 'x_mm', /“NaN” is not a number/],
    ['infinity', { ...good, x_mm: 'Infinity' }, 'x_mm', /not a number/],
    ['a decimal comma', { ...good, y_mm: '1,5' }, 'y_mm', /write a decimal point, not a comma/],
    ['an empty number', { ...good, y_mm: '' }, 'y_mm', /not a number/],
    ['an unknown group', { ...good, group: 'cabbage' }, 'group', /use one of: core power/],
    ['an unknown trust', { ...good, trust: 'total' }, 'trust', /use published, shared/],
    ['micrometres', { ...good, x_mm: '12000' }, 'x_mm, y_mm', /are these millimetres/],
  ])('names the line and the mend for %s', (_, row, field, text) => {
    const { contacts, findings } = read({ ...good, name: 'B1', x_mm: '3' }, row)
    expect(contacts).toEqual([])
    expect(findings[0]).toMatchObject({ level: 'error', line: 3, field })
    expect(findings[0]!.text).toMatch(text)
  })
  it('finds doubles by name, whatever their case, and by place', () => {
    expect(read(good, { ...good, name: 'a1', x_mm: '1' }).findings[0]!.text).toBe(
      'a1 stands already on line 2',
    )
    expect(read(good, { ...good, name: 'A2' }).findings[0]!.text).toBe(
      'A2 stands where line 2 already has a contact',
    )
  })
  it('tells unsplit columns from missing ones', () => {
    expect(readContactTable([], ['name;x_mm;y_mm']).findings[0]!.text).toMatch(/the columns are not split/)
    expect(readContactTable([], ['place', 'row', 'column']).findings[0]!.text).toMatch(
      /no column “name”, “x_mm”, “y_mm”; found “place”, “row”, “column”/,
    )
  })
  it('refuses 7,000 rows and an empty table, and stops after sixty findings', () => {
    const many = Array.from({ length: 7000 }, (_, i) => ({ ...good, name: `A${i}`, x_mm: String(i) }))
    expect(read(...many).findings[0]!.text).toMatch(/7,000 contacts; the largest field taken is 6,500/)
    expect(read().findings[0]!.text).toMatch(/no contacts/)
    const bad = read(...Array.from({ length: 300 }, () => ({ ...good, x_mm: '?' })))
    expect(bad.findings).toHaveLength(61)
    expect(bad.findings.at(-1)!.text).toMatch(/and \d+ more/)
  })
  it('warns, but takes, a table without functions', () => {
    const table = readContactTable(
      [
        { name: 'A1', x_mm: '0', y_mm: '0' },
        { name: 'A2', x_mm: '1', y_mm: '0' },
      ],
      ['name', 'x_mm', 'y_mm'],
    )
    expect(table.contacts).toHaveLength(2)
    expect(table.findings).toMatchObject([{ level: 'warning', field: 'group' }])
  })
  it('never throws', () => {
    const cell = fc.option(fc.string({ maxLength: 8 }), { nil: undefined })
    fc.assert(
      fc.property(
        fc.array(fc.record(Object.fromEntries(contactColumns.map((c) => [c, cell]))), { maxLength: 20 }),
        (rows) => {
          const table = read(...(rows as Row[]))
          expect(table.contacts.length === 0 || table.findings.every((f) => f.level === 'warning')).toBe(true)
        },
      ),
    )
  })
})

it('smallestSpacing equals the least of all pairs', () => {
  const mm = fc.integer({ min: -50, max: 50 }).map((n) => n / 10)
  fc.assert(
    fc.property(fc.array(fc.record({ xMm: mm, yMm: mm }), { minLength: 2, maxLength: 40 }), (points) => {
      let least = Infinity
      points.forEach((a, i) =>
        points
          .slice(i + 1)
          .forEach((b) => (least = Math.min(least, Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm)))),
      )
      expect(smallestSpacing(points)).toBeCloseTo(least, 3)
    }),
  )
})
