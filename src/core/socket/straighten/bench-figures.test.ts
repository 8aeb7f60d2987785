import { describe, expect, it } from 'vitest'
import {
  benchFigures,
  figureFault,
  figureNames,
  figuresOf,
  lostMinor,
  minutesMinor,
  usualFigures,
} from './bench-figures'

describe('what the bench reckons with', () => {
  it('every default lies within its own range', () => {
    for (const name of figureNames)
      expect([name, figureFault(name, usualFigures[name])]).toEqual([name, null])
  })
  it('takes the shop’s own where they make sense, and only there', () => {
    expect(figuresOf({ hourMinor: 90_000, withALoss: 1.4, raiseMinutes: NaN })).toEqual({
      ...usualFigures,
      hourMinor: 90_000,
    })
  })
  it.each([
    ['withALoss', 1.01, /a share from 0 to 1/],
    ['strokeMinutes', 0, /minutes from 0.1 to 600/],
    ['hourMinor', -1, /an amount from 0 up/],
    ['hourMinor', NaN, /an amount/],
  ] as const)('%s of %s is refused: %s', (name, value, why) => expect(figureFault(name, value)).toMatch(why))
  it('tells minutes in money, and what a lost contact costs', () => {
    const own = figuresOf({ hourMinor: 120_000, transplantMinutes: 20, transplantSetUp: 10 })
    expect(minutesMinor(15, own)).toBe(30_000)
    expect(lostMinor(own)).toBe(60_000)
    expect(benchFigures.hourMinor.unit).toBe('money')
  })
})
