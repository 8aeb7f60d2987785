import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readContactTable } from './contact-table'
import { smallField } from '../model/field.testing'
import { orientationOf, putRight, sayOrientation } from './orientation'
import { knownTable } from './table-columns'

const { contacts } = smallField()
const any = fc.record({
  quarterTurns: fc.constantFrom(0 as const, 1 as const, 2 as const, 3 as const),
  mirrored: fc.boolean(),
})

describe('how a table lies against its names', () => {
  it('any turning and mirroring is found, and put right', () => {
    fc.assert(
      fc.property(any, (o) => {
        const laid = contacts.map((c) => putRight(c, o))
        const found = orientationOf(laid)!
        laid
          .map((c) => putRight(c, found))
          .forEach((c, i) => {
            expect([c.xMm, c.yMm]).toEqual([
              expect.closeTo(contacts[i]!.xMm, 9),
              expect.closeTo(contacts[i]!.yMm, 9),
            ])
            expect(Math.cos((c.beamDeg * Math.PI) / 180)).toBeCloseTo(
              Math.cos((contacts[i]!.beamDeg * Math.PI) / 180),
              9,
            )
          })
      }),
    )
  })
  it('lying as its names say, nothing is said', () => {
    expect(sayOrientation(orientationOf(contacts))).toBeNull()
    expect(sayOrientation({ quarterTurns: 0, mirrored: true })).toMatch(/underside of the CPU/)
    expect(sayOrientation({ quarterTurns: 2, mirrored: false })).toBe('turned by 180°')
  })
  it('a handful of contacts tells nothing', () => expect(orientationOf(contacts.slice(0, 3))).toBeNull())
})

describe('a table in other people’s columns', () => {
  const rows = (mm: number, header: readonly string[], flip = 1) =>
    contacts.map((c) => ({
      [header[0]!]: c.net,
      [header[1]!]: String((c.yMm * 1) / mm),
      [header[2]!]: String((flip * c.xMm) / mm),
      [header[3]!]: c.name,
    }))
  const read = (header: readonly string[], mm: number, choice = {}, flip = 1) =>
    readContactTable(rows(mm, header, flip), header, choice)

  it.each([
    [['Signal Name', 'Y (mil)', 'X (mil)', 'Ball'], 0.0254],
    [['net', 'pos y', 'pos x', 'pin'], 1],
    [['Net-Name', 'Y_mm', 'X_mm', 'Location'], 1],
    [['signal', 'y [um]', 'x [um]', 'pad'], 0.001],
  ] as const)('%j is understood', (header, mm) => {
    const table = read(header, mm)
    expect(table.contacts.map((c) => c.name)).toEqual(contacts.map((c) => c.name))
    expect(table.contacts[5]!.xMm).toBeCloseTo(contacts[5]!.xMm, 3)
    expect(table.contacts[5]!.net).toBe(contacts[5]!.net)
    expect(table.pitchMm).toBeCloseTo(1, 2)
  })
  it('without a unit, mils are told by the spacing, said, and can be overruled', () => {
    const table = read(['net', 'y', 'x', 'pin'], 0.0254)
    expect(table.unit).toBe('mil')
    expect(table.findings.find((f) => f.field === 'unit')!.text).toMatch(/taken as mil/)
    expect(read(['net', 'y', 'x', 'pin'], 1, { unit: 'mil' }).pitchMm).toBeCloseTo(0.025, 3)
  })
  it('a mirrored table is asked about, and put right on request', () => {
    const header = ['net', 'y_mm', 'x_mm', 'pin']
    const asked = read(header, 1, {}, -1)
    expect(asked.orientation).toEqual({ quarterTurns: 0, mirrored: true })
    expect(asked.findings.find((f) => f.field === 'x_mm, y_mm')!.text).toMatch(
      /mirrored, as seen on the underside/,
    )
    expect(asked.contacts[3]!.xMm).toBe(-contacts[3]!.xMm)
    expect(read(header, 1, { putRight: true }, -1).contacts.map((c) => c.xMm)).toEqual(
      contacts.map((c) => c.xMm),
    )
  })
  it('an origin in a corner is moved to the middle, and said', () => {
    const table = readContactTable(
      contacts.map((c) => ({ name: c.name, x_mm: String(c.xMm + 3.5), y_mm: String(c.yMm + 3.5) })),
      ['name', 'x_mm', 'y_mm'],
    )
    expect(table.contacts.map((c) => c.xMm)).toEqual(contacts.map((c) => c.xMm))
    expect(table.findings.some((f) => /origin/.test(f.text))).toBe(true)
  })
  it('a column that is known twice is taken the first time', () => {
    expect(knownTable([{ pin: 'A1', ball: 'B1' }], ['pin', 'ball'])).toMatchObject({
      columns: ['name', 'ball'],
      rows: [{ name: 'A1', ball: 'B1' }],
    })
  })
})
