import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Places } from './places'

const at = fc.double({ min: -20, max: 20, noNaN: true })
const some = fc.array(fc.tuple(at, at), { maxLength: 200 })

describe('Places', () => {
  it('finds just those within the radius, and the nearest of them', () => {
    fc.assert(
      fc.property(some, at, at, fc.double({ min: 0, max: 8, noNaN: true }), (points, x, y, r) => {
        const places = new Places(
          points.map((p) => p[0]),
          points.map((p) => p[1]),
        )
        const far = points.map((p) => Math.hypot(p[0] - x, p[1] - y))
        expect(places.within(x, y, r)).toEqual(
          points.flatMap((p, i) => ((p[0] - x) ** 2 + (p[1] - y) ** 2 <= r * r ? [i] : [])),
        )
        const nearest = places.nearest(x, y, r)
        if (nearest < 0) expect(Math.min(Infinity, ...far)).toBeGreaterThanOrEqual(r * (1 - 1e-12))
        else expect(far[nearest]).toBe(Math.min(...far))
      }),
    )
  })
})
