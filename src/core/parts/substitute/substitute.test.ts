import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dielectrics, leftAtVolts, substitutes, uses } from './substitute'
import type { StockPart, Wanted } from './substitute'
import { partKinds } from '../value/quantity'
import { sizeCodes } from '../value/size-code'

const decoupling: Wanted = {
  kind: 'capacitor',
  value: 1e-7,
  tolerance: 0.1,
  size: '0402',
  use: 'decoupling',
  workingV: 1.8,
  dielectric: 'X7R',
}
const alike: StockPart = {
  id: 'C 100n 0402',
  kind: 'capacitor',
  value: 1e-7,
  tolerance: 0.1,
  size: '0402',
  volts: 16,
  dielectric: 'X7R',
  free: 40,
}
const series: Wanted = {
  kind: 'resistor',
  value: 33,
  tolerance: 0.05,
  size: '0402',
  use: 'series',
  watts: 0.01,
}
const r33: StockPart = { id: 'R 33', kind: 'resistor', value: 33, tolerance: 0.05, size: '0402', free: 9 }
const only = (wanted: Wanted, part: StockPart) => substitutes(wanted, [part])[0]!

describe('a substitute', () => {
  it('like for like is said to be that', () => {
    expect(only(decoupling, alike)).toMatchObject({ grade: 'like for like', but: [], parts: ['C 100n 0402'] })
    expect(only(series, r33)).toMatchObject({ grade: 'like for like', but: [] })
  })
  it.each<[string, Wanted, StockPart, string, RegExp]>([
    ['of another kind', series, { ...alike, id: 'x' }, 'no', /a capacitor is no resistor/],
    ['at more volts than it bears', { ...decoupling, workingV: 20 }, alike, 'no', /bears 16 V, has 20 V/],
    ['too near what it bears', { ...decoupling, workingV: 12 }, alike, 'for a test', /12 V is 75 % of/],
    [
      'whose volts nobody knows',
      decoupling,
      (({ volts: _, ...rest }) => rest)(alike),
      'for a test',
      /what volts it bears is not known/,
    ],
    [
      'of which nobody knows what it is made of',
      decoupling,
      (({ dielectric: _, ...rest }) => rest)(alike),
      'for a test',
      /made of is not known/,
    ],
    ['that drifts', { ...decoupling, use: 'timing' }, alike, 'no', /C0G only/],
    ['with a plus end', decoupling, { ...alike, dielectric: 'tantalum' }, 'no', /plus and a minus end/],
    [
      'ceramic in place of polymer',
      { ...decoupling, use: 'bulk', dielectric: 'polymer' },
      alike,
      'for a test',
      /a regulator may need/,
    ],
    [
      'of a worse ceramic',
      decoupling,
      { ...alike, dielectric: 'X5R' },
      'for a test',
      /X5R is worse than X7R/,
    ],
    ['of the worst', decoupling, { ...alike, dielectric: 'Y5V' }, 'no', /Y5V is worse than X7R/],
    ['far too small', decoupling, { ...alike, value: 1e-8 }, 'no', /9.76 nF in place of 100 nF/],
    ['larger, where more is no harm', decoupling, { ...alike, value: 2.2e-7 }, 'good', /220 nF in place of/],
    ['a size up', decoupling, { ...alike, size: '0603' }, 'for a test', /mind its neighbours/],
    ['a size down', { ...decoupling, size: '0603' }, alike, 'for a test', /just bridges/],
    ['that does not fit', decoupling, { ...alike, size: '1206' }, 'no', /does not fit its pads/],
    ['of which none is free', decoupling, { ...alike, free: 0 }, 'no', /none is free/],
    ['that burns', { ...series, watts: 0.5 }, r33, 'no', /turns 0.50 W to heat, bears 0.063 W/],
    ['that gets hot', { ...series, watts: 0.05 }, r33, 'for a test', /79 % of what it bears/],
    ['a jumper for a resistor', series, { ...r33, value: 0 }, 'no', /0 Ω in place of 33 Ω/],
    ['a resistor for a jumper', { ...series, value: 0, amps: 0.5 }, r33, 'no', /33 Ω in place of 0 Ω/],
    [
      'a jumper for a jumper that carries it',
      { ...series, value: 0, amps: 0.5 },
      { ...r33, value: 0 },
      'like for like',
      /^$/,
    ],
    [
      'a jumper that does not',
      { ...series, value: 0, amps: 3 },
      { ...r33, value: 0 },
      'no',
      /carries 1 A, 3 A/,
    ],
    [
      'a bead of unknown current',
      { ...series, kind: 'bead', value: 600, use: 'bead', amps: 0.2 },
      { ...r33, kind: 'bead', value: 600 },
      'for a test',
      /what current it carries/,
    ],
    [
      'coarser, where it is fine',
      { ...series, tolerance: 0.01 },
      r33,
      'good',
      /5 % in place of 1 % tolerance/,
    ],
    [
      'coarser, where it is not',
      { ...series, tolerance: 0.01, use: 'other' },
      r33,
      'for a test',
      /tolerance/,
    ],
  ])('%s', (_, wanted, part, grade, why) => {
    const judged = only(wanted, part)
    expect(judged.grade).toBe(grade)
    expect(judged.but.join('; ')).toMatch(why)
  })
  it('may be two, where none by itself is good', () => {
    const of = (...stock: StockPart[]) => substitutes(series, stock)
    const two = of({ ...r33, id: 'R 68', value: 68 })
    expect(two.find((j) => j.how === 'two side by side')).toMatchObject({
      parts: ['R 68', 'R 68'],
      value: 34,
      grade: 'good',
    })
    expect(of({ ...r33, id: 'R 15', value: 15 })[0]).toMatchObject({ how: 'two end to end', value: 30 })
    expect(of(r33, { ...r33, id: 'R 68', value: 68 }).some((j) => j.parts.length > 1)).toBe(false)
    const caps = substitutes(decoupling, [{ ...alike, id: 'C 47n', value: 4.7e-8 }])
    expect(caps[0]).toMatchObject({ how: 'two side by side', grade: 'good' })
  })
  it('is never one that may not, however well the rest fits', () => {
    const optional = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: undefined })
    const value = fc.double({ min: -11, max: 6, noNaN: true }).map((e) => 10 ** e)
    const part = fc
      .record({
        id: fc.constant('p'),
        kind: fc.constantFrom(...partKinds),
        value,
        tolerance: optional(fc.constantFrom(0.01, 0.05, 0.2)),
        size: optional(fc.constantFrom(...sizeCodes)),
        volts: optional(fc.constantFrom(4, 6.3, 16, 50)),
        dielectric: optional(fc.constantFrom(...dielectrics)),
        free: optional(fc.nat(3)),
      })
      .map((p) => JSON.parse(JSON.stringify(p)) as StockPart)
    fc.assert(
      fc.property(
        part,
        fc.constantFrom(...uses),
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        value,
        (p, use, workingV, wantedValue) => {
          const wanted: Wanted = { kind: p.kind, value: wantedValue, use, workingV }
          for (const j of substitutes(wanted, [p])) {
            const count = j.parts.length
            const bears = (p.volts ?? Infinity) * (j.how === 'two end to end' ? 2 : 1)
            if (p.kind === 'capacitor' && workingV > bears) expect(j.grade).toBe('no')
            if (p.kind === 'capacitor' && (p.volts === undefined || p.dielectric === undefined))
              expect(['no', 'for a test']).toContain(j.grade)
            if ((p.free ?? 9) < count) expect(j.grade).toBe('no')
            const off = j.value / wantedValue
            if (j.grade !== 'no' && p.kind === 'resistor') {
              expect(off).toBeGreaterThan(0.5)
              expect(off).toBeLessThan(2)
            }
            expect(j.grade === 'no' ? j.but.length : 1).toBeGreaterThan(0)
          }
        },
      ),
    )
  })
})

describe('what is left of a ceramic at its volts', () => {
  it('is all of it without volts, and less with more', () => {
    for (const d of dielectrics)
      for (const size of ['0402', '1206']) {
        expect(leftAtVolts(d, 0, size)).toBe(1)
        let last = 1
        for (let u = 0.1; u <= 1; u += 0.1) {
          const left = leftAtVolts(d, u, size)
          expect(left).toBeLessThanOrEqual(last)
          expect(left).toBeGreaterThan(0)
          last = left
        }
      }
    expect(leftAtVolts('C0G', 1)).toBe(1)
    expect(leftAtVolts('X5R', 0.7)).toBeCloseTo(0.5, 12)
    expect(leftAtVolts('X7R', 0.5, '0402')).toBeLessThan(leftAtVolts('X7R', 0.5, '1206'))
  })
})
