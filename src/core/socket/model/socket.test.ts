import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { smallField } from './field.testing'
import { fieldOf, unknownContact, underside } from './socket'
import { functionGroups } from '../../board/function-group'
import { functionLaw, groupState, parallelState, shortGrade, starts } from '../contact/function-law'

const mm = fc.double({ min: -20, max: 20, noNaN: true })

it('the underside is the mirror image, and its mirror image is the field again', () => {
  fc.assert(
    fc.property(mm, mm, (xMm, yMm) => {
      expect(underside({ xMm, yMm })).toEqual({ xMm: -xMm, yMm })
      expect(underside(underside({ xMm, yMm }))).toEqual({ xMm, yMm })
    }),
  )
})

it('fieldOf counts every contact once and is made once', () => {
  const socket = smallField()
  expect([...fieldOf(socket).totals.values()].reduce((a, b) => a + b, 0)).toBe(socket.contacts.length)
  expect(fieldOf(socket)).toBe(fieldOf(socket))
})

it('unknownContact names the first that is no contact, and where they run', () => {
  expect(unknownContact(smallField(), ['A1', 'H8'])).toBeNull()
  expect(unknownContact(smallField(), ['A1', 'S30'])).toBe('small has no contact S30; they run from A1 to H8')
})

describe('function laws', () => {
  it('a parallel group fails when the rest would carry more than they may', () => {
    const law = functionLaw['core power']
    expect(parallelState(law, 100, 0)).toBe('whole')
    expect(parallelState(law, 100, 20)).toBe('whole')
    expect(parallelState(law, 100, 35)).toBe('strained')
    expect(parallelState(law, 100, 50)).toBe('failed')
    expect(parallelState(law, 10, 10)).toBe('failed')
  })
  it('losing more never helps', () => {
    const rank = { whole: 0, strained: 1, failed: 2 }
    fc.assert(
      fc.property(
        fc.constantFrom(...functionGroups),
        fc.integer({ min: 1, max: 300 }),
        fc.nat({ max: 300 }),
        fc.nat({ max: 50 }),
        (group, of, lost, more) => {
          expect(rank[groupState(group, of, lost + more)]).toBeGreaterThanOrEqual(
            rank[groupState(group, of, lost)],
          )
        },
      ),
    )
  })
  it('a board starts with one memory channel, not with none, and not without its clock', () => {
    const of = functionGroups.map(() => 40)
    const without = (...groups: string[]) => functionGroups.map((g) => (groups.includes(g) ? 1 : 0))
    expect(starts(without('memory B', 'card lanes', 'reserved', 'ground'), of)).toBe(true)
    expect(starts(without('memory A', 'memory B'), of)).toBe(false)
    for (const single of ['clock', 'reset', 'sense', 'control'])
      expect(starts(without(single), of)).toBe(false)
  })
  it('grades a join by what it joins, the same both ways', () => {
    const c = (group: (typeof functionGroups)[number], net: string) => ({ group, net })
    expect(shortGrade(c('core power', 'VCORE'), c('ground', 'GND'))).toBe('gravest')
    expect(shortGrade(c('memory A', 'MA_1'), c('ground', 'GND'))).toBe('grave')
    expect(shortGrade(c('memory A', 'MA_1'), c('memory A', 'MA_2'))).toBe('signal')
    expect(shortGrade(c('ground', 'GND'), c('ground', 'GND'))).toBe('harmless')
    expect(shortGrade(c('unknown', 'A1'), c('ground', 'GND'))).toBe('unknown')
    fc.assert(
      fc.property(fc.constantFrom(...functionGroups), fc.constantFrom(...functionGroups), (a, b) => {
        expect(shortGrade(c(a, 'x'), c(b, 'y'))).toBe(shortGrade(c(b, 'y'), c(a, 'x')))
      }),
    )
  })
})
