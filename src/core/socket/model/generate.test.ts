import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { smallField } from './field.testing'
import { generateField, placeOf, readRegions, rowName } from './generate'

const plain = {
  id: 'x',
  name: 'x',
  kind: 'land-grid',
  pitchMm: 1,
  holes: [],
  beamDeg: [0, 0],
  regions: [],
} as const

describe('row names', () => {
  it('are read back as the rows they name', () => {
    fc.assert(
      fc.property(fc.nat({ max: 400 }), fc.integer({ min: 0, max: 998 }), (row, column) => {
        expect(placeOf(`${rowName(row)}${column + 1}`)).toEqual({ row, column })
      }),
    )
    expect([0, 19, 20, 39, 40].map(rowName)).toEqual(['A', 'Y', 'AA', 'AY', 'BA'])
    for (const odd of ['', '7', 'A', 'I3', 'A0', 'ABC1']) expect(placeOf(odd)).toBeNull()
  })
})

describe('generateField', () => {
  it('lays rows from the far edge and columns from the left, centred', () => {
    const { contacts } = generateField({ ...plain, rows: 3, columns: 2 })
    expect(contacts.map((c) => [c.name, c.xMm, c.yMm])).toEqual([
      ['A1', -0.5, 1],
      ['A2', 0.5, 1],
      ['B1', -0.5, 0],
      ['B2', 0.5, 0],
      ['C1', -0.5, -1],
      ['C2', 0.5, -1],
    ])
  })
  it('leaves holes out and knows nothing outside its regions', () => {
    const socket = smallField()
    expect(socket.contacts).toHaveLength(60)
    expect(socket.contacts.every((c) => c.group !== 'unknown')).toBe(true)
    const bare = generateField({ ...plain, rows: 2, columns: 2 })
    expect(bare.contacts.every((c) => c.group === 'unknown' && c.trust === 'none')).toBe(true)
  })
  it('sets singles and every n-th ground', () => {
    const regions = [
      { rows: [0, 0], columns: [0, 5], group: 'core power', net: 'VCORE', trust: 'shared', groundEvery: 2 },
    ] as const
    const { contacts } = generateField({
      ...plain,
      rows: 1,
      columns: 6,
      regions,
      singles: { A1: { group: 'clock', net: 'CLK' } },
    })
    expect(contacts.map((c) => c.net)).toEqual(['CLK', 'VCORE', 'GND', 'VCORE', 'GND', 'VCORE'])
  })
  it('refuses what is no field', () => {
    expect(() => generateField({ ...plain, rows: 0, columns: 4 })).toThrow(RangeError)
    expect(() => generateField({ ...plain, rows: 100, columns: 100 })).toThrow(/6500/)
  })
})

describe('painted regions', () => {
  it('are read from corners and a group, in any order', () => {
    const { regions, faults } = readRegions('A1 H12 memory A\n\nH4:B2 ground\n')
    expect(faults).toEqual([])
    expect(regions[0]).toMatchObject({ rows: [0, 7], columns: [0, 11], group: 'memory A', trust: 'region' })
    expect(regions[1]).toMatchObject({ rows: [1, 7], columns: [1, 3], group: 'ground', net: 'GND' })
  })
  it('teach when they make no sense', () => {
    expect(readRegions('somewhere memory A').faults[0]).toMatch(/line 1: begin with two corners/)
    expect(readRegions('A1 B2 cabbage').faults[0]).toMatch(
      /“cabbage” is not a function group; use core power/,
    )
  })
})
