import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between, decade, nearest, seriesOf, seriesSizes } from './e-series'
import { readMarking } from './marking'
import { partKinds, readValue, sayValue } from './quantity'
import { sizes, sizesFor } from './size-code'

describe('preferred values', () => {
  it('are those of the standard', () => {
    expect(decade(3)).toEqual([1, 2.2, 4.7])
    expect(decade(6)).toEqual([1, 1.5, 2.2, 3.3, 4.7, 6.8])
    expect(decade(12)).toEqual([1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2])
    expect(decade(48).slice(0, 5)).toEqual([1, 1.05, 1.1, 1.15, 1.21])
    expect(decade(96).slice(-3)).toEqual([9.31, 9.53, 9.76])
    expect(decade(192)).toContain(9.2)
    for (const size of seriesSizes) expect(decade(size)).toHaveLength(size)
  })
  it('nearest is nearest of all', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1e7, noNaN: true }),
        fc.constantFrom(...seriesSizes),
        (value, size) => {
          const off = (v: number) => Math.abs(Math.log(v / value))
          const best = nearest(value, size)
          for (let d = -3; d < 9; d++)
            for (const v of decade(size)) expect(off(best)).toBeLessThanOrEqual(off(v * 10 ** d) + 1e-9)
          expect(seriesOf(best)).not.toBeNull()
        },
      ),
    )
  })
  it('of a range lie in it, in order, its ends among them', () => {
    expect(between(22, 47, 6)).toEqual([22, 33, 47])
    expect(between(990, 1001, 24)).toEqual([1000])
    expect(between(1.01, 1.04, 24)).toEqual([])
    expect(() => between(5, 4, 12)).toThrow(RangeError)
    expect(() => between(0, 4, 12)).toThrow(RangeError)
    expect([seriesOf(47), seriesOf(4.99), seriesOf(50), seriesOf(0)]).toEqual([3, 96, null, null])
  })
})

describe('a value', () => {
  it.each([
    ['resistor', '33', 33],
    ['resistor', '33 Ω', 33],
    ['resistor', '4k7', 4700],
    ['resistor', '4,7 kΩ', 4700],
    ['resistor', '4R7', 4.7],
    ['resistor', 'R10', 0.1],
    ['resistor', '10m', 0.01],
    ['resistor', '1M', 1e6],
    ['resistor', '0', 0],
    ['resistor', '120 ohm', 120],
    ['capacitor', '100n', 1e-7],
    ['capacitor', '0.1 µF', 1e-7],
    ['capacitor', '4u7', 4.7e-6],
    ['capacitor', '22 pF', 2.2e-11],
    ['bead', '600', 600],
    ['capacitor', '100', null],
    ['resistor', '4.7k7', null],
    ['resistor', 'k', null],
    ['resistor', '', null],
    ['resistor', 'ten', null],
    ['resistor', '3 3', null],
  ] as const)('of a %s: %s', (kind, text, value) => {
    const read = readValue(kind, text)
    if (value === null) expect(read).toBeNull()
    else expect(read).toBeCloseTo(value, 15)
  })
  it('is read as it is said', () => {
    const value = fc.double({ min: -11, max: 6, noNaN: true }).map((e) => Number((10 ** e).toPrecision(3)))
    fc.assert(
      fc.property(fc.constantFrom(...partKinds), value, (kind, v) => {
        const within = kind === 'capacitor' ? v <= 1e-2 : v >= 1e-3
        if (within) expect(readValue(kind, sayValue(kind, v))! / v).toBeCloseTo(1, 3)
      }),
    )
    expect([sayValue('resistor', 4700), sayValue('capacitor', 1e-7), sayValue('resistor', 0)]).toEqual([
      '4.7 kΩ',
      '100 nF',
      '0 Ω',
    ])
    expect(sayValue('capacitor', 1e-3)).toBe('1000 µF')
  })
})

describe('a marking', () => {
  const all = (text: string) => readMarking(text).map((r) => `${r.kind} ${sayValue(r.kind, r.value)}`)
  it.each([
    ['103', ['resistor 10 kΩ', 'capacitor 10 nF']],
    ['479', ['capacitor 4.7 pF']],
    ['1002', ['resistor 10 kΩ']],
    ['4R7', ['resistor 4.7 Ω']],
    ['R010', ['resistor 10 mΩ']],
    ['3K3', ['resistor 3.3 kΩ']],
    ['0', ['resistor 0 Ω']],
    ['000', ['resistor 0 Ω']],
    ['01C', ['resistor 10 kΩ']],
    ['68X', ['resistor 49.9 Ω']],
    ['104K', ['capacitor 100 nF', 'resistor 104 kΩ']],
    ['107A', ['capacitor 100 µF']],
    ['A107', ['capacitor 100 µF']],
    ['J5', ['capacitor 220 nF']],
    ['KA2', ['capacitor 100 pF']],
    ['a3', ['capacitor 2.5 nF']],
    ['97C', []],
    ['hello', []],
    ['', []],
  ])('%s', (text, said) => expect(all(text)).toEqual(said))
  it('says how sure the code is of it, and its volts', () => {
    expect(readMarking('1002')[0]).toMatchObject({ tolerance: 0.01, code: 'four figures', odd: false })
    expect(readMarking('103')[0]!.tolerance).toBe(0.05)
    expect(readMarking('104K')[0]).toMatchObject({ tolerance: 0.1, volts: null })
    expect(readMarking('A107')[0]).toMatchObject({ volts: 10, code: 'tantalum, with its volts' })
    expect(readMarking('01C')[0]!.code).toBe('EIA-96')
  })
  it('says of a value that is in no series that it is odd, and puts it last', () => {
    expect(readMarking('143')[0]).toMatchObject({ odd: true })
    expect(readMarking('153')[0]).toMatchObject({ odd: false })
  })
  it('of every value of E24 in three figures, and of E96 in four and in its own code, is that value', () => {
    for (let d = 0; d < 6; d++) {
      for (const v of decade(24))
        expect(readMarking(`${Math.round(v * 10)}${d}`)[0]!.value / (v * 10 ** (d + 1))).toBeCloseTo(1, 9)
      decade(96).forEach((v, i) => {
        expect(readMarking(`${Math.round(v * 100)}${d}`)[0]!.value / (v * 10 ** (d + 2))).toBeCloseTo(1, 9)
        const own = `${String(i + 1).padStart(2, '0')}${'ABCDEF'[d]!}`
        const read = readMarking(own).find((r) => r.code === 'EIA-96')!
        expect(read.value / (v * 10 ** (d + 2))).toBeCloseTo(1, 9)
      })
    }
  })
  it('never throws', () => {
    fc.assert(fc.property(fc.string({ maxLength: 8 }), (text) => void readMarking(text)))
  })
})

describe('the size of two pads', () => {
  it('is that of the part whose pads stand so', () => {
    for (const size of sizes) expect(sizesFor(size.padsMm).map((s) => s.code)).toContain(size.code)
    expect(sizesFor(1.0)[0]!.code).toBe('0402')
    expect(sizesFor(3.1, 2.5)[0]!.code).toBe('1210')
    expect(sizesFor(3.1, 1.5)[0]!.code).toBe('1206')
    expect(sizesFor(20)).toEqual([])
  })
})
