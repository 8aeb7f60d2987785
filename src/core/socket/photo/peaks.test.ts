import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import type { Plane } from '../../photo/grey-image'
import { PeakPlaces, peaksOf, spotResponse, stripSeen } from './peaks'

/** An even ground with a slope of light and round spots on it. */
function spots(at: readonly (readonly [number, number])[], size = 60): Plane {
  const values = new Float32Array(size * size)
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++)
      values[y * size + x] =
        40 +
        0.3 * x +
        at.reduce((sum, [cx, cy]) => sum + 120 * Math.exp(-((x - cx) ** 2 + (y - cy) ** 2) / 9), 0)
  return { widthPx: size, heightPx: size, values }
}

describe('spots', () => {
  it('are found to a twentieth of a pixel on a slope of light, and only they', () => {
    fc.assert(
      fc.property(between(12, 22), between(12, 44), (x, y) => {
        const peaks = peaksOf(
          spotResponse(
            spots([
              [x, y],
              [48, 30],
            ]),
            3.3,
          ),
          5,
        )
        const grid = new PeakPlaces(peaks)
        const found = grid.nearest(x, y, 3)
        expect(peaks.x.length).toBe(2)
        expect(Math.hypot(peaks.x[found]! - x, peaks.y[found]! - y)).toBeLessThan(0.05)
        expect(grid.nearest(x + 15, y, 3)).toBe(-1)
      }),
    )
  })
  it('even ground has none', () => {
    expect(peaksOf(spotResponse(spots([]), 3.3), 5).x.length).toBe(0)
  })
  it('a strip is seen where one is, not beside it', () => {
    const plane = spots([])
    for (let x = 10; x < 40; x++) for (let y = 28; y <= 32; y++) plane.values[y * 60 + x]! += 50
    expect(stripSeen(plane, [10, 30], [40, 30], 7)).toBeCloseTo(50, 0)
    expect(stripSeen(plane, [10, 45], [40, 45], 7)).toBeCloseTo(0, 0)
  })
})
