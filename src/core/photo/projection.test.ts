import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../maths/between.testing'
import { fromPairs, project, refine, scaleAt, unproject } from './projection'
import type { Pair, Point, Projection } from './projection'

const range = (min: number, max: number) => between(min, max)
/** A camera that could stand above a field of ± 20 mm. */
const camera: fc.Arbitrary<Projection> = fc
  .tuple(
    range(-0.2, 0.2),
    range(0.02, 0.035),
    range(-0.002, 0.002),
    range(-0.002, 0.002),
    range(-0.1, 0.1),
    range(-0.04, 0.04),
  )
  .map(([turn, scale, px, py, shift, k1]) => {
    const [c, s] = [Math.cos(turn) * scale, Math.sin(turn) * scale]
    return {
      h: Float64Array.from([c, s, shift, s, -c, -shift, px, py, 1]),
      k1,
      middle: [2000, 1500] as const,
      halfDiagonalPx: 2500,
    }
  })
const places: readonly Point[] = Array.from({ length: 81 }, (_, i): Point => [
  ((i % 9) - 4) * 4.5,
  (Math.floor(i / 9) - 4) * 4.5,
])
const pairsOf = (p: Projection): Pair[] => places.map((mm) => ({ mm, px: project(p, mm[0], mm[1]) }))

describe('projection', () => {
  it('goes there and back', () => {
    fc.assert(
      fc.property(camera, range(-18, 18), range(-18, 18), (p, x, y) => {
        const back = unproject(p, ...project(p, x, y))
        expect(Math.hypot(back[0] - x, back[1] - y)).toBeLessThan(1e-4)
      }),
    )
  })
  it('through four exact clicks without a lens gives the camera back', () => {
    fc.assert(
      fc.property(camera, (lensed) => {
        const p = { ...lensed, k1: 0 }
        const four = [0, 8, 72, 80].map((i) => pairsOf(p)[i]!)
        const found = fromPairs(four, 4000, 3000)
        for (const mm of places) {
          const [a, b] = [project(p, ...mm), project(found, ...mm)]
          expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-4)
        }
      }),
    )
  })
  it('refined from rough clicks finds lens and place, a tenth of the tips being off', () => {
    fc.assert(
      fc.property(camera, fc.integer(), (p, seed) => {
        const pairs = pairsOf(p).map((pair, i): Pair =>
          (i * 7 + seed) % 10 === 0 ? { ...pair, px: [pair.px[0] + 18, pair.px[1] - 9] } : pair,
        )
        const rough = fromPairs(
          [0, 8, 72, 80].map((i) => ({
            ...pairs[i]!,
            px: [pairs[i]!.px[0] + 3, pairs[i]!.px[1] - 2] as const,
          })),
          4000,
          3000,
        )
        const found = refine(rough, pairs)
        for (const mm of places) {
          const [a, b] = [project(p, ...mm), project(found, ...mm)]
          expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.5)
        }
      }),
      { numRuns: 30 },
    )
  })
  it('says how many pixels a millimetre has', () => {
    const p: Projection = {
      h: Float64Array.from([0.02, 0, 0, 0, -0.02, 0, 0, 0, 1]),
      k1: 0,
      middle: [0, 0],
      halfDiagonalPx: 2500,
    }
    expect(scaleAt(p, 3, -2)).toBeCloseTo(50, 6)
  })
  it('wants four pairs', () => {
    expect(() =>
      fromPairs(
        pairsOf({ h: new Float64Array(9), k1: 0, middle: [0, 0], halfDiagonalPx: 1 }).slice(0, 3),
        10,
        10,
      ),
    ).toThrow(RangeError)
  })
})
