import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { findInMap, indexMap, near, partsOnNet, socketOnMap, twinsOf } from './board-map'
import type { BoardPoint } from './board-map'
import { readNetlist } from './netlist'
import { readPlacements } from './placement'
import { writeNetlist } from './write-netlist'

const point = (of: Partial<BoardPoint>): BoardPoint => ({
  net: 'SPI_MISO',
  ref: 'R214',
  pin: '1',
  kind: 'pad',
  side: 'top',
  xMm: 0,
  yMm: 0,
  wMm: 0,
  hMm: 0,
  drillMm: 0,
  plated: true,
  middle: false,
  ...of,
})
/** Lines written by hand, column by column, not by the writer. */
const head = 'C  a board\nP  JOB K61\nP  UNITS CUST 0\n'
const byHand = `${head}327SPI_MISO         R214  -1          A01X+010000Y+020000X0200Y0220R090 S0
327SPI_CLK          U7    -6          A02X+014000Y-020000
317GND              J3    -12   D0400PA00X 050000Y 003000X0700Y0000R000
017                                 A00X+051000Y+003000
307VCORE            VIA         D0120PA00X+020000Y+020000
367N/C                    -     D1250UA00X+000000Y+000000
327N/C              U7    -3          A01X+014500Y-020000
999
`
const read = (text: string) => readNetlist(text).map!.points

describe('a netlist', () => {
  it('is read by its columns: net, part, pin, side, place, size, hole', () => {
    const { map, findings } = readNetlist(byHand)
    expect(findings).toEqual([])
    expect(map!.units).toBe('0.0001 inch')
    expect(map!.points).toHaveLength(7)
    const [r214, u7, j3, j3more, via, hole, open] = map!.points
    expect(r214).toMatchObject({ net: 'SPI_MISO', ref: 'R214', pin: '1', kind: 'pad', side: 'top' })
    expect([r214!.xMm, r214!.yMm, r214!.wMm, r214!.hMm].map((v) => Number(v.toFixed(4)))).toEqual([
      25.4, 50.8, 0.508, 0.5588,
    ])
    expect(u7).toMatchObject({ ref: 'U7', pin: '6', side: 'bottom', net: 'SPI_CLK' })
    expect(u7!.yMm).toBeCloseTo(-50.8, 9)
    expect(j3).toMatchObject({ kind: 'through', side: 'both', plated: true })
    expect(j3!.drillMm).toBeCloseTo(1.016, 9)
    expect(j3more).toMatchObject({ ref: 'J3', pin: '12', net: 'GND' })
    expect(j3more!.xMm - j3!.xMm).toBeCloseTo(2.54, 9)
    expect(via).toMatchObject({ kind: 'via', ref: '', net: 'VCORE' })
    expect(hole).toMatchObject({ kind: 'hole', plated: false, net: '' })
    expect(open).toMatchObject({ net: '', ref: 'U7', pin: '3' })
    expect(map!.unconnected).toBe(1)
  })
  it('with long names of nets has them whole', () => {
    const text = `P  UNITS CUST 1\nP  NNAME1 MEMORY_CHANNEL_A_DATA_17\n327NNAME1           R1    -1          A01X+050000Y+000000\n327GND              R1    -2          A01X+000000Y+020000\n999\n`
    expect(read(text)[0]!.net).toBe('MEMORY_CHANNEL_A_DATA_17')
    expect(read(text)[0]!.xMm).toBe(50)
  })
  it('is read as it is written, whatever the board', () => {
    const mm = fc.integer({ min: -400_000, max: 400_000 }).map((um) => um / 1000)
    const name = (most: number) => fc.stringMatching(new RegExp(`^[A-Z][A-Z0-9_]{0,${most - 1}}$`))
    const any = fc
      .record({
        net: fc.oneof(name(14), name(30)),
        ref: name(6).filter((r) => r !== 'VIA'),
        pin: fc.stringMatching(/^[A-Z0-9]{1,4}$/),
        kind: fc.constantFrom('pad', 'through', 'via', 'hole'),
        side: fc.constantFrom('top', 'bottom', 'both'),
        xMm: mm,
        yMm: mm,
        wMm: fc.integer({ min: 1, max: 9999 }).map((um) => um / 1000),
        hMm: fc.nat({ max: 9999 }).map((um) => um / 1000),
        drillMm: fc.integer({ min: 1, max: 9999 }).map((um) => um / 1000),
        plated: fc.boolean(),
        middle: fc.boolean(),
      })
      .filter((p) => !/^NNAME|^N_?C$/.test(p.net)) as fc.Arbitrary<BoardPoint>
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 20 }), (points) => {
        const far = [point({ xMm: 0 }), point({ pin: '2', xMm: 300 })]
        const { map, findings } = readNetlist(writeNetlist([...points, ...far]))
        expect(findings.filter((f) => f.level === 'error')).toEqual([])
        points.forEach((p, i) => {
          const is = map!.points[i]!
          const bare = p.kind === 'via' ? { ref: '', pin: '' } : {}
          expect(is).toEqual({
            ...p,
            ...bare,
            xMm: expect.closeTo(p.xMm, 6) as number,
            yMm: expect.closeTo(p.yMm, 6) as number,
            wMm: expect.closeTo(p.wMm, 6) as number,
            hMm: expect.closeTo(p.hMm, 6) as number,
            drillMm: expect.closeTo(p.drillMm, 6) as number,
          })
        })
      }),
    )
  })
  it.each<[string, string, RegExp]>([
    ['without units says what it takes', byHand.replace('P  UNITS CUST 0\n', ''), /says no units: taken as/],
    ['cut at its end says so', byHand.replace('999\n', ''), /does not end with 999/],
    ['with a cut line names it', byHand.replace('A02X+014000Y-020000', 'A02X+0140'), /327 has no X and Y/],
    ['in other units than it says', byHand.replace('CUST 0', 'CUST 9'), /“CUST 9” are no units/],
    [
      'far too wide',
      `${head}327A R1 -1\n327GND              R1    -1          A01X+999999Y+000000\n327GND              R1    -2          A01X-999999Y+000000\n999`,
      /with 0.0001 inch the board is 508 by 0|has no X and Y/,
    ],
    ['with a side left out', byHand.replace('A01X+010000', '   X+010000'), /does not say its side/],
    [
      'with a continuation of nothing',
      `${head}017                                 A00X+051000Y+003000\n${byHand}`,
      /017 goes on a record that is not there/,
    ],
    [
      'with names as long as their columns',
      byHand.replaceAll('SPI_MISO      ', 'SPI_MISO_LONG1'),
      /fill their 14 columns/,
    ],
    [
      'that is something else',
      'dear customer,\nyour board is ready',
      /no record: cut, or another file|no IPC-D-356A netlist/,
    ],
    ['that is empty', '', /no IPC-D-356A netlist/],
    [
      'with records of other things',
      byHand.replace('999', '389BOARD_EDGE     X+000000Y+000000\n999'),
      /record 389 is no point of a net/,
    ],
  ])('%s', (_, text, says) => {
    expect(
      readNetlist(text)
        .findings.map((f) => f.text)
        .join('\n'),
    ).toMatch(says)
  })
  it('of which half is cut away still gives what can be placed, and never throws', () => {
    fc.assert(
      fc.property(fc.nat({ max: byHand.length }), fc.string({ maxLength: 40 }), (at, noise) => {
        const { map } = readNetlist(byHand.slice(0, at) + noise + byHand.slice(at))
        if (map) for (const p of map.points) expect(Number.isFinite(p.xMm * p.yMm)).toBe(true)
      }),
      { numRuns: 300 },
    )
  })
  it('without units is judged by how close its pins stand', () => {
    const pins = Array.from({ length: 40 }, (_, i) =>
      point({ ref: 'U9', pin: String(i + 1), net: `N${i}`, xMm: 0.65 * i, yMm: i % 2 ? 60 : 60 }),
    )
    const metric = writeNetlist(pins).replace('P  UNITS CUST 1\n', '')
    expect(readNetlist(metric).map!.units).toBe('0.001 mm')
    expect(readNetlist(metric, '0.0001 inch').map!.units).toBe('0.0001 inch')
  })
  it('lists the first few faults of a kind, and counts the rest', () => {
    const many = `${head}${'327 cut\n'.repeat(5000)}${byHand}`
    const { findings } = readNetlist(many)
    expect(findings.length).toBeLessThan(12)
    expect(findings.map((f) => f.text).join('\n')).toMatch(/and 4995 more lines of the kind/)
  })
})

describe('a board map', () => {
  const of = indexMap(
    {
      units: '0.001 mm',
      unconnected: 0,
      points: [
        ...['A1', 'A2', 'B1', 'B2'].map((pin, i) =>
          point({ ref: 'XU1', pin, net: ['VCORE', 'GND', 'MEM_A_DQ0', ''][i]!, xMm: i % 2, yMm: i >> 1 }),
        ),
        point({ ref: 'R214', pin: '1', net: 'SPI_IO0', xMm: 5, yMm: 0 }),
        point({ ref: 'R214', pin: '2', net: 'CHIP_IO0', xMm: 6, yMm: 0 }),
        point({ ref: 'R215', pin: '1', net: 'SPI_IO1', xMm: 5, yMm: 2, side: 'bottom' }),
        point({ ref: 'R215', pin: '2', net: 'CHIP_IO1', xMm: 6, yMm: 2, side: 'bottom' }),
        point({ ref: 'C3', pin: '1', net: 'VCORE', xMm: 30, yMm: 0 }),
        point({ ref: 'C3', pin: '2', net: 'GND', xMm: 31, yMm: 0 }),
        point({ ref: '', pin: '', kind: 'via', net: 'VCORE', xMm: 9, yMm: 9 }),
      ],
    },
    [{ ref: 'C3', xMm: 30.5, yMm: 0, turnDeg: 90, side: 'top', value: '100 nF', body: '0402' }],
  )
  it('finds parts and nets by name, the very one first', () => {
    expect(findInMap(of, 'r21').parts).toEqual(['R214', 'R215'])
    expect(findInMap(of, 'IO1')).toEqual({ parts: [], nets: ['CHIP_IO1', 'SPI_IO1'] })
    expect(findInMap(of, 'gnd').nets[0]).toBe('GND')
    expect(findInMap(of, '  ')).toEqual({ parts: [], nets: [] })
  })
  it('says what a net joins, and what stands near a part', () => {
    expect(partsOnNet(of, 'VCORE')).toEqual([
      { ref: 'C3', pin: '1' },
      { ref: 'XU1', pin: 'A1' },
    ])
    expect(partsOnNet(of, 'nothing')).toEqual([])
    expect(near(of, 'XU1', 10).map((p) => [p.ref, p.mm, p.side])).toEqual([
      ['R214', 4, 'top'],
      ['R215', expect.closeTo(Math.hypot(4, 1), 3), 'bottom'],
    ])
    expect(near(of, 'XU1', 29)).toHaveLength(3)
    expect(near(of, 'nobody', 5)).toEqual([])
  })
  it('joins the contacts of the socket to their nets', () => {
    const socket = socketOnMap(of, ['A1', 'A2', 'B1', 'B2', 'C1'])!
    expect(socket).toMatchObject({ ref: 'XU1', unknown: 1 })
    expect(socket.nets.get('B1')).toBe('MEM_A_DQ0')
    expect(socketOnMap(of, ['P1', 'P2', 'P3', 'P4', 'P5'])).toBeNull()
  })
  it('knows twins by their nets and their pads', () => {
    expect(twinsOf(of, 'R214')).toEqual(['R215'])
    expect(twinsOf(of, 'C3')).toEqual([])
    expect(twinsOf(of, 'XU1')).toEqual([])
  })
  it('takes value, body and place from a placement list', () => {
    expect(of.parts.get('C3')).toMatchObject({ value: '100 nF', body: '0402', xMm: 30.5 })
    expect(of.parts.get('R215')!.side).toBe('bottom')
  })
})

describe('a placement list', () => {
  it.each<[string, string[]]>([
    ['of one program', ['Designator', 'Mid X(mm)', 'Mid Y(mm)', 'Rotation', 'Layer', 'Comment', 'Footprint']],
    ['of another', ['Ref', 'PosX', 'PosY', 'Rot', 'Side', 'Val', 'Package']],
    ['of a third', ['RefDes', 'X', 'Y', 'Angle', 'TB', 'Value', 'Size']],
  ])('%s', (_, columns) => {
    const row = Object.fromEntries(
      columns.map((c, i) => [c, ['R1', '12.5', '-3', '90', 'Bottom', '33R', '0402'][i]]),
    )
    const { placements } = readPlacements([row], columns)
    expect(placements).toEqual([
      { ref: 'R1', xMm: 12.5, yMm: -3, turnDeg: 90, side: 'bottom', value: '33R', body: '0402' },
    ])
  })
  it('in mils is turned into millimetres, by its header or its figures', () => {
    expect(
      readPlacements([{ Ref: 'R1', 'X (mil)': '1000', 'Y (mil)': '0' }], ['Ref', 'X (mil)', 'Y (mil)'])
        .placements[0]!.xMm,
    ).toBeCloseTo(25.4, 9)
    expect(
      readPlacements([{ Ref: 'R1', X: '1000mil', Y: '2mm' }], ['Ref', 'X', 'Y']).placements[0],
    ).toMatchObject({ xMm: expect.closeTo(25.4, 9) as number, yMm: 2 })
  })
  it('says what is missing, what is no place, what stands twice and what it takes for granted', () => {
    expect(readPlacements([], ['a', 'b']).findings[0]!.text).toMatch(
      /no column for the part, X, Y; found a, b/,
    )
    const { placements, findings } = readPlacements(
      [
        { Ref: 'R1', X: '1', Y: '1' },
        { Ref: 'R1', X: '2', Y: '2' },
        { Ref: 'R2', X: 'left', Y: '2' },
        { Ref: '', X: '', Y: '' },
      ],
      ['Ref', 'X', 'Y'],
    )
    expect(placements.map((p) => p.ref)).toEqual(['R1'])
    expect(findings.map((f) => f.text)).toEqual([
      'says no unit: taken as mm',
      'R1 stands twice: the first counts',
      '“left” is no place: R2 is left out',
      '1 of 1 parts say no side: taken as top',
    ])
  })
})
