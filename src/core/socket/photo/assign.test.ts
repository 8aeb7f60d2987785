import fc from 'fast-check'
import { expect, it } from 'vitest'
import { assign } from './assign'

/** Every way of giving each row a column of its own, and the least of them. */
function bruteForce(cost: readonly Float64Array[], row = 0, used = 0): number {
  if (row === cost.length) return 0
  let least = Infinity
  cost[row]!.forEach((c, column) => {
    if (used & (1 << column)) return
    least = Math.min(least, c + bruteForce(cost, row + 1, used | (1 << column)))
  })
  return least
}

it('is as cheap as the cheapest of all ways', () => {
  const table = fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 2 })).chain(([n, more]) =>
    fc.array(fc.array(fc.integer({ min: 0, max: 30 }), { minLength: n + more, maxLength: n + more }), {
      minLength: n,
      maxLength: n,
    }),
  )
  fc.assert(
    fc.property(table, (rows) => {
      const cost = rows.map((r) => Float64Array.from(r))
      const columns = assign(cost)
      expect(new Set(columns).size).toBe(cost.length)
      expect(columns.reduce((sum, c, r) => sum + cost[r]![c]!, 0)).toBe(bruteForce(cost))
    }),
    { numRuns: 300 },
  )
})
it('takes no pair that is out of the question where another way is left', () => {
  expect([...assign([Float64Array.from([Infinity, 5]), Float64Array.from([1, Infinity])])]).toEqual([1, 0])
})
it('refuses more rows than columns', () => {
  expect(() => assign([Float64Array.from([1]), Float64Array.from([1])])).toThrow(RangeError)
})
