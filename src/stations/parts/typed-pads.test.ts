import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { MissingPart } from '@/core/parts/missing/infer'
import { padKinds } from '@/core/parts/missing/pad'
import { readPads, typedOf } from './typed-pads'
import type { TypedPads } from './typed-pads'

const ohms = fc.oneof(fc.constant('open' as const), fc.integer({ min: 0, max: 9_999_999 }))
const pad = fc.record(
  {
    groundOhm: ohms,
    diodeV: fc.integer({ min: 0, max: 1999 }).map((mV) => mV / 1000),
    rails: fc.dictionary(fc.constantFrom('3v3', '1v8', 'vcore'), ohms, { minKeys: 1 }),
    net: fc.constant('SPI_MISO'),
    pins: fc.array(fc.record({ pin: fc.constant('U7.5'), does: fc.constantFrom(...padKinds), ohms }), {
      minLength: 1,
      maxLength: 3,
    }),
  },
  { requiredKeys: [] },
)
const typed = (change: Partial<TypedPads['a']>, more: Partial<TypedPads> = {}): TypedPads => {
  const empty = typedOf()
  return { ...empty, ...more, a: { ...empty.a, ...change } }
}

describe('readings of pads', () => {
  it('are read as they are shown', () => {
    const any = fc.record(
      {
        a: pad,
        b: pad,
        padsMm: fc.constantFrom(0.6, 1, 3.1),
        supplyV: fc.constantFrom(1.8, 3.3),
        twins: fc.constantFrom(
          [{ ref: 'R213', value: 33 }],
          [
            { ref: 'C4', value: 1e-7 },
            { ref: 'C5', value: 2.2e-11 },
          ],
          [{ ref: 'FB2', value: 600 }],
        ),
      },
      { requiredKeys: ['a', 'b'] },
    ) as fc.Arbitrary<MissingPart>
    fc.assert(
      fc.property(any, (part) => {
        expect(readPads(typedOf(part))).toEqual({ part, errors: { a: {}, b: {} } })
      }),
    )
  })
  it('take what a meter shows, with its letters', () => {
    expect(
      readPads(typed({ ground: '4k7', diode: '0.52 V' }, { rails: [{ name: '3v3', a: 'OL', b: '' }] })).part!
        .a,
    ).toEqual({
      groundOhm: 4700,
      diodeV: 0.52,
      rails: { '3v3': 'open' },
    })
    const beeps = { pin: 'U7.5', does: 'clock', ohms: '' }
    expect(readPads(typed({ pins: [beeps] })).part!.a.pins).toEqual([
      { pin: 'U7.5', does: 'clock', ohms: 0.5 },
    ])
  })
  it.each<[string, TypedPads, RegExp]>([
    ['words for ohms', typed({ ground: 'some' }), /“some” are no ohms: 120k/],
    ['volts no diode drops', typed({ diode: '12' }), /“12” is no drop/],
    ['ohms to no supply', typed({}, { rails: [{ name: '', a: '3', b: '' }] }), /to which supply/],
    ['a pin without a name', typed({ pins: [{ pin: '', does: 'data', ohms: '3' }] }), /which pin/],
    ['a pin without ohms', typed({ pins: [{ pin: 'U1', does: 'data', ohms: 'x' }] }), /no ohms/],
    ['pads too far apart', typed({}, { padsMm: '200' }), /a figure up to 20/],
    ['a supply of nothing', typed({}, { supplyV: '0' }), /a figure up to 60/],
    ['a twin without a value', typed({}, { twins: 'R213' }), /name and value, like R213 33/],
    ['a capacitor of 100', typed({}, { twins: 'C5 100' }), /C5 100n/],
  ])('say what is wrong with %s', (_, of, says) => {
    const { part, errors } = readPads(of)
    expect(part).toBeNull()
    expect(JSON.stringify(errors)).toMatch(says)
  })
})

describe('what the board’s map knows of a part', () => {
  const map = {
    a: 'SPI_MISO',
    b: 'PCH_MISO',
    padsMm: 1,
    twins: [
      { ref: 'R213', value: 33 },
      { ref: 'R215', value: null },
    ],
  }
  it('stands in the fields until something is kept: nets, spacing, and twins whose value is known', () => {
    const typed = typedOf(undefined, 'SPI', map)
    expect(typed).toMatchObject({
      padsMm: '1',
      twins: 'R213 33 Ω',
      a: { net: 'SPI_MISO' },
      b: { net: 'PCH_MISO' },
    })
    expect(readPads(typed).part).toEqual({
      a: { net: 'SPI_MISO' },
      b: { net: 'PCH_MISO' },
      padsMm: 1,
      twins: [{ ref: 'R213', value: 33 }],
    })
  })
  it('gives way to what was kept, and to the net it was noted with where there is no map', () => {
    expect(typedOf({ a: { net: 'X' }, b: {} }, undefined, map)).toMatchObject({
      padsMm: '',
      twins: '',
      a: { net: 'X' },
      b: { net: '' },
    })
    expect(typedOf(undefined, 'SPI', null).a.net).toBe('SPI')
  })
})
