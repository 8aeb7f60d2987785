import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  localeOf,
  momentThere,
  readMoney,
  sayMoment,
  sayMoney,
  sayNumber,
  sayWallClock,
  usualReader,
  wallClock,
  zoneOf,
} from './reader'

const german = { locale: 'de-DE', zone: 'Europe/Berlin', currency: 'Taler' }
const plain = (text: string) => text.replace(/\s/g, ' ')

describe('what is written for a reader', () => {
  it('is in their locale and zone, with the shop’s money', () => {
    expect(sayNumber(usualReader, 1716)).toBe('1,716')
    expect(sayNumber(german, 1716)).toBe('1.716')
    expect(plain(sayMoney(usualReader, 123_450))).toBe('1,234.50 kr')
    expect(plain(sayMoney(german, 123_450))).toBe('1.234,50 Taler')
    expect(sayMoney(german, 45_000)).toBe('450 Taler')
    expect(sayMoment(usualReader, '2026-11-24T23:30:00Z', 'moment')).toBe('Tue 24 Nov, 23:30')
    expect(sayMoment(german, '2026-11-24T23:30:00Z', 'moment')).toBe('Mi., 25. Nov., 0:30')
  })
  it('knows the clock on the wall there, summer and winter, and says it as it stands', () => {
    expect(wallClock(german, '2026-11-24T23:30:00Z')).toBe('2026-11-25T00:30')
    expect(wallClock(german, '2026-07-01T06:05:00Z')).toBe('2026-07-01T08:05')
    expect(wallClock(usualReader, '2026-11-24T03:00:00Z')).toBe('2026-11-24T03:00')
    expect(sayWallClock(german, '2026-11-25T00:30')).toBe('Mi., 25. Nov., 0:30')
  })
  it('finds the moment at which that clock shows something; one that it leaps over is the one after', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2026-01-01'), max: new Date('2027-12-31'), noInvalidDate: true }),
        fc.constantFrom('UTC', 'Europe/Berlin', 'America/St_Johns', 'Pacific/Auckland'),
        (date, zone) => {
          const local = wallClock({ zone }, date.toISOString())
          expect(wallClock({ zone }, momentThere({ zone }, local))).toBe(local)
        },
      ),
    )
    expect(momentThere(german, '2026-11-25T00:30')).toBe('2026-11-24T23:30:00.000Z')
    expect(wallClock(german, momentThere(german, '2026-03-29T02:30'))).toBe('2026-03-29T03:30')
  })
  it('is the first language that is known, and a zone that is one', () => {
    expect(localeOf('xx-invalid-tag-too-long-indeed, de-CH;q=0.9, en;q=0.8')).toBe('de-CH')
    expect(localeOf('de;q=0, fr')).toBe('fr')
    for (const none of [null, '', '*', '%%%', 'zz'.repeat(40)]) expect(localeOf(none)).toBe('en-GB')
    expect(zoneOf('Europe/Berlin')).toBe('Europe/Berlin')
    for (const none of [undefined, 'Nowhere/Town', '']) expect(zoneOf(none)).toBe('UTC')
  })
})

describe('an amount that was typed', () => {
  it('is read back from what is written without groups, in either locale', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99_999 }),
        fc.constantFrom(usualReader, german),
        (minor, reader) => {
          expect(readMoney(reader, sayMoney(reader, minor))).toBe(minor)
        },
      ),
    )
  })
  it.each([
    ['', null],
    ['450', 45_000],
    ['450,5', 45_050],
    [' 1 450.25 kr', 145_025],
    ['450kr', 45_000],
    ['kr', null],
    ['1.450', NaN],
    ['-3', NaN],
    ['450 x', NaN],
  ] as const)('“%s”', (text, minor) => expect(readMoney(usualReader, text)).toEqual(minor))
})
