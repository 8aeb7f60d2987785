import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { blur, greyOf, sample, shrink } from './grey-image'
import type { Plane } from './grey-image'
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

describe('grey picture', () => {
  it('takes its grey from the three colours', () => {
    const { grey } = greyOf(Uint8Array.from([255, 255, 255, 255, 0, 0, 0, 255, 255, 0, 0, 255]), 3, 1)
    expect([...grey]).toEqual([255, 0, 77])
    expect(() => greyOf(new Uint8Array(5), 1, 1)).toThrow(RangeError)
  })
  it('shrinks to means and drops what is left over', () => {
    const image = { widthPx: 5, heightPx: 2, grey: Uint8Array.from([0, 4, 8, 8, 99, 4, 8, 8, 8, 99]) }
    expect([...shrink(image, 2).values]).toEqual([4, 8])
  })
  it('blurs without making light or losing it, and leaves even ground even', () => {
    fc.assert(
      fc.property(between(0.5, 4), (sigma) => {
        const even = blur({ widthPx: 20, heightPx: 12, values: new Float32Array(240).fill(77) }, sigma)
        for (const v of even.values) expect(v).toBeCloseTo(77, 3)
        const point = new Float32Array(61 * 61)
        point[30 * 61 + 30] = 1000
        const spread = blur({ widthPx: 61, heightPx: 61, values: point }, sigma)
        expect(spread.values.reduce((a, b) => a + b, 0)).toBeCloseTo(1000, 0)
        // The middle of a Gaussian is 1/(2πσ²), cut at 2.6 σ and sampled a little more.
        if (sigma > 1)
          expect(spread.values[30 * 61 + 30]! / (1000 / (2 * Math.PI * sigma ** 2))).toBeCloseTo(1, 1)
      }),
      { numRuns: 20 },
    )
  })
  it('samples between pixels', () => {
    const plane: Plane = { widthPx: 2, heightPx: 2, values: Float32Array.from([0, 10, 20, 30]) }
    expect(sample(plane, 0.5, 0.5)).toBeCloseTo(15, 2)
    expect(sample(plane, -5, 0)).toBe(0)
  })
})

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
