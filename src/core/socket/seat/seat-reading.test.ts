import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMarks, smallField } from '../model/field.testing'
import { corners, cornerOf, readSeating, slopeOf } from './seat-reading'

const socket = smallField()
const top = (...args: Parameters<typeof readSeating>) => readSeating(...args)[0]!

describe('how a CPU went in', () => {
  it('odds are odds, worst first, and every cause has its look', () => {
    fc.assert(
      fc.property(
        anyMarks(socket),
        fc.constantFrom('flat' as const, 'proud' as const, 'needed force' as const),
        fc.constantFrom(...corners),
        fc.constantFrom('land-grid' as const, 'pin-grid' as const),
        (marks, drop, corner, kind) => {
          const read = readSeating({ ...socket, kind }, marks, { drop, corner })
          expect(read.reduce((a, r) => a + r.odds, 0)).toBeGreaterThan(0.96)
          expect(read.map((r) => r.odds)).toEqual([...read.map((r) => r.odds)].sort((a, b) => b - a))
          expect(read.every((r) => r.look.length > 10)).toBe(true)
        },
      ),
    )
  })
  it.each([
    ['flat, nothing marked', {}, { drop: 'flat' }, 'well seated'],
    [
      'a high contact at the proud corner',
      { A8: { kind: 'high', heightMm: 0.2 } },
      { drop: 'proud', corner: 'far right' },
      'a contact stands high',
    ],
    [
      'something lodged there',
      { A8: { kind: 'lodged' } },
      { drop: 'proud', corner: 'far right' },
      'something lodged',
    ],
    ['its marks did not meet', {}, { drop: 'proud', turned: true }, 'CPU turned'],
  ] as const)('%s', (_, marks, seating, cause) => expect(top(socket, marks, seating).cause).toBe(cause))
  it('what is marked at another corner does not speak for this one', () => {
    const read = readSeating(socket, { H1: { kind: 'lodged' } }, { drop: 'proud', corner: 'far right' })
    expect(read.find((r) => r.cause === 'something lodged')!.contacts).toEqual([])
  })
  it('a pin that leans keeps a pin-grid CPU out', () => {
    expect(
      top(
        { ...socket, kind: 'pin-grid' },
        { C3: { kind: 'lean', leanMm: [0.3, 0] } },
        { drop: 'needed force' },
      ).cause,
    ).toBe('pin out of line')
  })
  it('heights that slope over the field speak for a warped housing', () => {
    const slope = Object.fromEntries(
      socket.contacts.map((c) => [c.name, { kind: 'low' as const, heightMm: -0.1 - 0.02 * c.xMm }]),
    )
    expect(slopeOf(socket, slope)).toBeCloseTo(0.02, 6)
    expect(top(socket, slope, { drop: 'proud' }).cause).toBe('warped housing')
    expect(slopeOf(socket, { A1: { kind: 'low', heightMm: -0.2 } })).toBe(0)
  })
  it('knows its corners', () =>
    expect([cornerOf(-1, 1), cornerOf(2, -3)]).toEqual(['far left', 'near right']))
})
