import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inferMissing, roles } from './infer'
import type { MissingPart } from './infer'
import { chanceOfPad, kindOfNet, neverGuessed, padKinds, readingsOf, toRead } from './pad'
import type { Ohms, PadKind, PadSeen } from './pad'

const supply: PadSeen = { groundOhm: 180, diodeV: 0.33, rails: { '3v3': 0.3 } }
const ground: PadSeen = { groundOhm: 0.2, diodeV: 0.001, rails: { '3v3': 180 } }
const to = (does: PadKind, times = 2): PadSeen => ({
  groundOhm: 250_000,
  diodeV: 0.6,
  rails: { '3v3': 180_000 },
  pins: Array.from({ length: times }, () => ({ pin: 'U7.5', does, ohms: 0.3 })),
})
const top = (part: MissingPart) => inferMissing(part).roles[0]!.role

const ohms: fc.Arbitrary<Ohms> = fc.oneof(
  fc.constant('open' as const),
  fc.double({ min: -1, max: 7.3, noNaN: true }).map((e) => 10 ** e),
)
const anyPad: fc.Arbitrary<PadSeen> = fc.record(
  {
    groundOhm: ohms,
    diodeV: fc.oneof(fc.constant('open' as const), fc.double({ min: 0, max: 2, noNaN: true })),
    rails: fc.dictionary(fc.constantFrom('3v3', '1v8'), ohms),
    pins: fc.array(fc.record({ pin: fc.constant('U1.2'), does: fc.constantFrom(...padKinds), ohms }), {
      maxLength: 3,
    }),
    net: fc.constantFrom('GND', 'SPI_MISO', '+3V3', 'VCORE_FB', ''),
  },
  { requiredKeys: [] },
)

describe('what a missing part did', () => {
  it.each<[string, PadSeen, PadSeen]>([
    ['series', to('data'), to('data')],
    ['pull-up', supply, to('data')],
    ['pull-up', to('control'), supply],
    ['pull-down', ground, to('data')],
    ['strap', supply, to('strap')],
    ['strap', to('strap'), ground],
    ['decoupling', supply, ground],
    ['feedback', supply, to('feedback')],
    ['sense', to('sense'), supply],
    ['clock load', to('clock'), ground],
    ['coupling', to('lane'), { ...to('lane'), net: 'SATA_TXP0' }],
    ['bead', supply, { groundOhm: 150, diodeV: 0.34, rails: { '3v3': 60, vpll: 0.4 } }],
  ])('%s', (role, a, b) => expect(top({ a, b })).toBe(role))
  it('is the same whichever pad is named first', () => {
    fc.assert(
      fc.property(anyPad, anyPad, fc.constantFrom(undefined, 1, 1.6, 3.1), (a, b, padsMm) => {
        const more = padsMm === undefined ? {} : { padsMm }
        const [one, other] = [inferMissing({ a, b, ...more }), inferMissing({ a: b, b: a, ...more })]
        for (const { role, odds } of one.roles)
          expect(other.roles.find((r) => r.role === role)?.odds ?? 0).toBeCloseTo(odds, 6)
        expect(other.value).toEqual(one.value)
      }),
    )
  })
  it('is Bayes over what the two pads are on', () => {
    // By hand: a decoupling capacitor or a bulk one, by the size of its pads alone once both pads are plain.
    const plain = { a: supply, b: { ...ground, net: 'GND' } }
    const odds = (padsMm?: number) => {
      const found = inferMissing(padsMm === undefined ? plain : { ...plain, padsMm }).roles
      return (
        found.find((r) => r.role === 'decoupling')!.odds / (found.find((r) => r.role === 'bulk')?.odds ?? 1)
      )
    }
    expect(odds()).toBeCloseTo(0.33 / 0.05, 6)
    expect(odds(1.0)).toBeCloseTo((0.33 / 0.05) * 9, 6)
    expect(odds(3.1)).toBeCloseTo(0.33 / 0.05 / 9, 6)
  })
  it('has odds that sum to one, and says what both pads are on', () => {
    fc.assert(
      fc.property(anyPad, anyPad, (a, b) => {
        const found = inferMissing({ a, b })
        const sum = found.roles.reduce((all, r) => all + r.odds, 0)
        expect(sum).toBeLessThanOrEqual(1 + 1e-9)
        expect(sum).toBeGreaterThan(1 - 0.01 * roles.length)
        expect(found.value === null).toBe(found.refused !== null)
        for (const { tells } of found.next) expect(tells).toBeGreaterThanOrEqual(0.01)
      }),
    )
  })
})

describe('the name of a part', () => {
  it('says what kind it was, and is hardly ever wrong', () => {
    const plain = { a: supply, b: to('data', 3) }
    expect(inferMissing({ ...plain, ref: 'R214' }).value).toMatchObject({ say: '4.7 kΩ' })
    expect(inferMissing({ ...plain, ref: 'C214' }).refused!.because).toBe(
      'C214 by its name was a capacitor, by its pads a resistor',
    )
    expect(inferMissing({ ...plain, ref: 'left of the chip' })).toEqual(inferMissing(plain))
    const chance = (ref?: string) =>
      inferMissing({ a: supply, b: { groundOhm: 900 }, ...(ref ? { ref } : {}) }).roles.find(
        (r) => r.role === 'decoupling',
      )?.odds ?? 0
    expect(chance('C3')).toBeGreaterThan(chance())
    expect(chance('R3')).toBeLessThan(chance())
  })
})

describe('its value', () => {
  it('is tried on low-current data alone, once both ends are known', () => {
    expect(inferMissing({ a: to('data'), b: to('data'), padsMm: 1, supplyV: 3.3 })).toMatchObject({
      value: { value: 33, say: '33 Ω', by: 'guess' },
      sizes: ['0402'],
      power: { amps: 0.008 },
      expects: { say: 'from pin to far end 30 Ω to 37 Ω' },
    })
    expect(inferMissing({ a: supply, b: to('data') }).value).toMatchObject({ say: '4.7 kΩ' })
    expect(inferMissing({ a: ground, b: to('data', 3) }).value).toMatchObject({ say: '10 kΩ' })
  })
  it('is not tried where one end was beeped once: that may have been the pin beside it', () => {
    expect(inferMissing({ a: supply, b: to('data', 1) })).toMatchObject({
      value: null,
      refused: { because: 'a fast lane, clock, reset, strap, feedback or sense line is not ruled out' },
    })
  })
  it('is never tried on what feeds, times, resets, chooses or senses, whatever is read', () => {
    const never = fc.constantFrom(...padKinds.filter((k) => neverGuessed.has(k)))
    fc.assert(
      fc.property(anyPad, anyPad, never, (a, b, does) => {
        const told = { ...b, pins: [{ pin: 'U1.1', does, ohms: 0.4 }], net: '' }
        const found = inferMissing({ a, b: told })
        if (found.value !== null) expect(found.b.on[0]!.kind).toBe('data')
        const twice = { ...told, pins: [...told.pins, ...told.pins] }
        expect(inferMissing({ a, b: twice }).value).toBeNull()
      }),
    )
    for (const pair of [
      [supply, ground],
      [supply, supply],
    ] as const)
      expect(inferMissing({ a: pair[0], b: pair[1] }).refused!.because).toMatch(/is never guessed/)
  })
  it('of what sets a voltage or is sensed comes from no twin, however well they agree', () => {
    const twins = [1, 2, 3].map((i) => ({ ref: `R${i}`, value: 10_000 }))
    for (const [a, b] of [
      ['VCORE', 'VR_FB'],
      ['GND', 'VR_FB'],
      ['VCORE_SENSE', 'VCORE_SENSE_R'],
      ['GND', 'IBIAS_REXT'],
    ] as const) {
      const found = inferMissing({ a: { net: a }, b: { net: b }, padsMm: 1, twins })
      expect([a, b, found.value]).toEqual([a, b, null])
      expect(found.refused!.ways.length).toBeGreaterThan(0)
    }
  })
  it('comes from its twins, where they agree and it is plain what it did', () => {
    const twins = (...values: number[]) => values.map((value, i) => ({ ref: `C${i}`, value }))
    const of = (...values: number[]) =>
      inferMissing({ a: supply, b: ground, padsMm: 1, twins: twins(...values) })
    expect(of(9.6e-8, 1.02e-7, 9.9e-8).value).toEqual({ value: 1e-7, say: '100 nF', by: 'twin' })
    expect(of(1e-7, 1e-6).refused!.because).toBe('its twins differ: C0 100 nF, C1 1 µF')
    expect(inferMissing({ a: {}, b: {}, twins: twins(33) }).refused!.because).toMatch(/not sure enough/)
  })
  it('waits while one reading contradicts the others, and says which to take again', () => {
    const found = inferMissing({ a: { ...to('data'), groundOhm: 0.3 }, b: to('data') })
    expect(found.a.doubtful!.what).toBe('0.3 Ω to ground')
    expect(found.refused).toMatchObject({ because: 'a reading contradicts the others' })
    expect(found.refused!.ways[0]).toBe('Read pad A again: 0.3 Ω to ground does not fit the rest')
  })
  it('refused says how to go on', () => {
    const ways = (a: PadSeen, b: PadSeen) => inferMissing({ a, b }).refused!.ways.join('; ')
    expect(ways(supply, to('feedback'))).toMatch(/board map.*other phase.*good board/)
    expect(ways(supply, ground)).toMatch(/between the same supply and ground.*runs without it/)
    expect(ways(supply, to('strap'))).toMatch(/same row or on the same bus/)
  })
})

describe('which reading next', () => {
  it('is one that tells most, and none once it is plain', () => {
    const nothing = inferMissing({ a: {}, b: {} })
    expect(nothing.next[0]!.what).toBe('beep it out to the pins near it')
    expect(inferMissing({ a: to('data'), b: to('data') }).next).toEqual([])
  })
  it('has steps that are certain to be one of them, whatever the pad is on', () => {
    for (const { steps } of toRead({}, '3v3'))
      padKinds.forEach((_, k) => expect(steps.reduce((sum, s) => sum + s[k]!, 0)).toBeCloseTo(1, 9))
  })
  it('a reading that was made is not asked for again', () => {
    expect(toRead(supply, '3v3').map((r) => r.what)).toEqual(['beep it out to the pins near it'])
  })
})

describe('a net’s name', () => {
  it.each<[string, PadKind | null]>([
    ['GND', 'ground'],
    ['AGND', 'ground'],
    ['+3V3', 'supply'],
    ['P1V8_STBY', 'supply'],
    ['VCORE', 'supply'],
    ['VCORE_FB', 'feedback'],
    ['VCC_SENSE', 'sense'],
    ['VSEN2', 'sense'],
    ['PLT_RST#', 'control'],
    ['PWROK', 'control'],
    ['VR_EN', 'control'],
    ['SPI_CLK', 'clock'],
    ['XTAL_IN', 'clock'],
    ['BOOT_STRAP2', 'strap'],
    ['SPI_MISO', 'data'],
    ['SPI_CS0#', 'data'],
    ['SMB_SDA', 'data'],
    ['SMB_SCL', 'clock'],
    ['SATA_TXP0', 'lane'],
    ['PCIE_RX3+', 'lane'],
    ['USB_D_N', 'lane'],
    ['MA_DQ17', 'lane'],
    ['LAN_MDI1', 'lane'],
    ['USB_RBIAS', 'feedback'],
    ['LAN_RSET', 'feedback'],
    ['SATA_RCOMP', 'feedback'],
    ['GPIO12', null],
    ['NET0123', null],
    ['N/C', null],
    ['', null],
  ])('%s', (net, kind) => expect(kindOfNet(net)).toBe(kind))
  it('says nothing of a pad when it says nothing', () => {
    expect([...chanceOfPad(readingsOf({ net: 'NET0123' }))]).toEqual(padKinds.map(() => 1))
  })
})
