import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { servable, shelfItems } from '../../board/shelf-items'
import type { ShelfItem } from '../../board/shelf-items'
import { atHandFor } from './at-hand'
import type { AtHandItem } from './stock-item'

const counted = (serves: ShelfItem, left: number, held: AtHandItem['held'] = []): AtHandItem => ({
  item: `${serves} ${left}`,
  kind: 'tool',
  value: null,
  place: 'drawer',
  count: left,
  low: 0,
  left,
  held,
  ofKit: false,
  serves,
})
const there = (away: readonly ShelfItem[], stock: readonly AtHandItem[], tag?: string) =>
  atHandFor(away, stock, tag)
    .filter((of) => of.there)
    .map(({ item }) => item)

describe('what tests need', () => {
  it('is at hand where nobody counts it, until somebody says that it is away', () => {
    expect(there([], [])).toEqual(shelfItems)
    expect(there(['scope'], [])).toEqual(shelfItems.filter((item) => item !== 'scope'))
  })
  it('is at hand while a piece is free; what a job holds, that job alone reckons with', () => {
    const last = counted('known-good CPU', 1, [{ tag: 'Q-0001', count: 1 }])
    expect(there([], [last])).not.toContain('known-good CPU')
    expect(there([], [last], 'Q-0002')).not.toContain('known-good CPU')
    expect(there([], [last], 'Q-0001')).toContain('known-good CPU')
    expect(there([], [last, counted('known-good CPU', 1)], 'Q-0002')).toContain('known-good CPU')
    expect(there(['known-good CPU'], [counted('known-good CPU', 3)])).not.toContain('known-good CPU')
  })
  it('has a second module only with two of them', () => {
    const second = 'second known-good module'
    expect(there([], [counted('known-good module', 1)])).toContain('known-good module')
    expect(there([], [counted('known-good module', 1)])).not.toContain(second)
    expect(there([], [counted('known-good module', 2)])).toContain(second)
    expect(there([], [counted('known-good module', 1), counted('known-good module', 1)])).toContain(second)
    expect(servable).not.toContain(second)
  })
  it('is never more at hand for another hold, nor less for another piece', () => {
    const pieces = fc.array(
      fc.record({
        serves: fc.constantFrom(...servable),
        left: fc.integer({ min: 0, max: 3 }),
        held: fc.integer({ min: 0, max: 3 }),
      }),
      { maxLength: 6 },
    )
    fc.assert(
      fc.property(pieces, fc.constantFrom(...servable), (drawn, more) => {
        const of = (extra: number) =>
          drawn.map(({ serves, left, held }) =>
            counted(serves, left, held + extra > 0 ? [{ tag: 'Q-0001', count: held + extra }] : []),
          )
        const now = there([], of(0))
        expect(there([], of(1)).every((item) => now.includes(item))).toBe(true)
        // The first count of a thing ends that it was taken to be there.
        if (drawn.some(({ serves }) => serves === more))
          expect(there([], [...of(0), counted(more, 1)])).toEqual(expect.arrayContaining(now))
      }),
    )
  })
})
