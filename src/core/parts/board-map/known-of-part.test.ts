import { describe, expect, it } from 'vitest'
import { indexMap, twinsOf } from './board-map'
import type { BoardPoint } from './board-map'
import { meetings, netOfPart, padsByMap, smallPartsAt } from './known-of-part'

const pad = (ref: string, pin: string, net: string, xMm: number, yMm: number): BoardPoint => ({
  net,
  ref,
  pin,
  kind: 'pad',
  side: 'top',
  xMm,
  yMm,
  wMm: 0.5,
  hMm: 0.5,
  drillMm: 0,
  plated: true,
  middle: false,
})
const two = (ref: string, a: string, b: string, x: number, y: number, apart = 1) => [
  pad(ref, '1', a, x, y),
  pad(ref, '2', b, x, y + apart),
]
const points = [
  ...two('R1', 'SPI_MISO', 'PCH_MISO', 0, 0),
  ...two('R2', 'SPI_MOSI', 'PCH_MOSI', 2, 0),
  ...two('R3', 'SPI_CS', 'PCH_CS', 60, 0),
  ...two('R4', 'SPI_IO2', 'P3V3', 4, 0),
  ...two('R5', 'SPI_CLK', 'PCH_CLK', 6, 0, 2),
  ...two('C6', 'SPI_A', 'PCH_A', 8, 0),
  ...two('C7', 'VCORE', 'GND', 20, 20),
  ...two('C8', 'VCORE', 'GND', 22, 20),
  ...two('R9', 'GND', 'GND', 30, 30),
  ...two('R20', 'SPI_SCK', 'PCH_SCK', -2, 0),
  ...two('R21', 'VR_FB', 'VR_OUT', 70, 0),
  ...two('R22', 'VR_EN', 'VR_PG', 72, 0),
  ...two('R23', 'VR_A', 'VR_B', 74, 0),
  ...two('R10', 'P3V3', 'MEM_RESET', 50, 30),
  ...two('C11', 'GND', 'P3V3', 54, 30),
  pad('XU1', 'A1', 'SPI_MISO', 100, 100),
  pad('XU1', 'A2', 'VCORE', 101, 100),
  pad('XU1', 'A3', 'GND', 102, 100),
]
const placed = (ref: string, value: string) => ({
  ref,
  xMm: 0,
  yMm: 0,
  turnDeg: 0,
  side: 'top' as const,
  value,
  body: '',
})
const map = indexMap({ points, units: '0.001 mm', unconnected: 0 })

describe('a part by the map', () => {
  it('of two pads has nets, spacing and twins, with their values where a list says them', () => {
    expect(padsByMap(map, 'R1')).toEqual({
      a: 'SPI_MISO',
      b: 'PCH_MISO',
      padsMm: 1,
      twins: [{ ref: 'R2', value: null }],
    })
    const told = indexMap({ points, units: '0.001 mm', unconnected: 0 }, [
      { ...placed('R2', '33'), xMm: 2, yMm: 0.5 },
    ])
    expect(padsByMap(told, 'R1')!.twins).toEqual([{ ref: 'R2', value: 33 }])
    expect(padsByMap(map, 'XU1')).toBeNull()
    expect(padsByMap(map, 'R77')).toBeNull()
  })
  it('has no twin in another row, of another size or kind, or towards a supply', () => {
    expect(twinsOf(map, 'R1')).toEqual(['R2'])
    expect(twinsOf(map, 'R4')).toEqual([])
    // A clock beside data lines, and what sets a voltage beside an enable, are no twins.
    for (const ref of ['R20', 'R21', 'R22', 'R23']) expect([ref, twinsOf(map, ref)]).toEqual([ref, []])
    expect(twinsOf(map, 'C7')).toEqual(['C8'])
  })
  it('belongs where its signal goes, else its supply, else ground', () => {
    expect(netOfPart(map, 'R4')).toBe('SPI_IO2')
    expect(netOfPart(map, 'C7')).toBe('VCORE')
    expect(netOfPart(map, 'R9')).toBe('GND')
    expect(netOfPart(map, 'R10')).toBe('MEM_RESET')
    expect(netOfPart(map, 'C11')).toBe('P3V3')
    expect(netOfPart(map, 'R77')).toBeNull()
  })
})

it('small parts at a place are those with one of its lines', () => {
  expect(smallPartsAt(map, 'at the firmware chip')).toEqual(['C6', 'R1', 'R2', 'R3', 'R4', 'R5', 'R20'])
  expect(smallPartsAt(map, 'at the core regulator')).toEqual(['C7', 'C8', 'R21', 'R22', 'R23'])
  expect(smallPartsAt(map, 'at memory')).toEqual(['R10'])
  expect(smallPartsAt(map, 'at the chipset')).toEqual(['C6', 'R1', 'R2', 'R3', 'R5', 'R20'])
})

describe('damage that meets on a net', () => {
  const nets = new Map([
    ['A1', 'SPI_MISO'],
    ['A2', 'VCORE'],
    ['A3', 'GND'],
  ])
  it('is a contact and a part, or two parts; ground says nothing', () => {
    expect(meetings(map, nets, ['A1', 'A3'], ['R1', 'C7', 'R9'])).toEqual([
      { net: 'SPI_MISO', contacts: ['A1'], parts: ['R1'] },
    ])
    expect(meetings(map, nets, [], ['C7', 'C8'])).toEqual([
      { net: 'VCORE', contacts: [], parts: ['C7', 'C8'] },
    ])
  })
  it('is none where only one thing was found on each net, or what was found is not on the map', () => {
    expect(meetings(map, nets, ['A1', 'A2'], [])).toEqual([])
    expect(meetings(map, nets, ['B9'], ['R77', 'R1'])).toEqual([])
  })
})
