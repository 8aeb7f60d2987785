import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { smallField } from '@/core/socket/model/field.testing'
import { contactCsv } from '@/tables/contact-csv'
import { readSocket, socketRequest } from './read-socket'

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
const grid = { rows: 4, columns: 5, pitchMm: 1.2, hole: '', regions: '' }

describe('readSocket', () => {
  it('reads a table and names the socket by what it is', () => {
    const field = smallField()
    const one = readSocket({ name: 'LG 60', kind: 'land-grid', look: true, csv: contactCsv(field) }, sha256)
    const two = readSocket({ name: 'LG 60', kind: 'land-grid', look: false, csv: contactCsv(field) }, sha256)
    expect(one.socket!.contacts).toEqual(field.contacts)
    expect(one.socket!.id).toMatch(/^lg-60-[0-9a-f]{8}$/)
    expect(two.socket!.id).toBe(one.socket!.id)
    expect(
      readSocket({ name: 'LG 60', kind: 'pin-grid', look: true, csv: contactCsv(field) }, sha256).socket!.id,
    ).not.toBe(one.socket!.id)
  })
  it('makes a grid with an empty middle and painted regions', () => {
    const { socket } = readSocket(
      {
        name: 'PG',
        kind: 'pin-grid',
        look: true,
        grid: { ...grid, hole: 'B2 C3', regions: 'A1 A5 memory A' },
      },
      sha256,
    )
    expect(socket!.contacts).toHaveLength(16)
    expect(socket!.contacts[0]).toMatchObject({ group: 'memory A', trust: 'region' })
    expect(socket!.contacts.at(-1)).toMatchObject({ group: 'unknown', trust: 'none' })
  })
  it('says what is wrong with a grid', () => {
    const faults = readSocket(
      {
        name: 'PG',
        kind: 'pin-grid',
        look: true,
        grid: { ...grid, hole: 'middle', regions: 'A1 A5 cabbage' },
      },
      sha256,
    )
    expect(faults.socket).toBeNull()
    expect(faults.findings.map((f) => f.field)).toEqual(['regions', 'hole'])
    expect(
      readSocket(
        { name: 'PG', kind: 'pin-grid', look: true, grid: { ...grid, rows: 200, columns: 200 } },
        sha256,
      ).findings[0]!.text,
    ).toMatch(/at most 6500/)
  })
  it('wants a name, a kind, and one of table and grid', () => {
    const fault = (value: unknown) => socketRequest.validate(value).error?.details[0]!.message
    expect(fault({ name: 'x', kind: 'land-grid', look: true, grid })).toMatch(/two to sixty letters/)
    expect(fault({ name: 'xy', kind: 'round', look: true, grid })).toMatch(/Land-grid or pin-grid/)
    expect(fault({ name: 'xy', kind: 'land-grid', look: true, grid: { ...grid, rows: 'many' } })).toMatch(
      /Rows: a whole number/,
    )
    expect(fault({ name: 'xy', kind: 'land-grid', look: true })).toBeTruthy()
    expect(fault({ name: 'xy', kind: 'land-grid', look: true, grid })).toBeUndefined()
  })
})
