import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../maths/between.testing'
import { blur, greyOf, sample, shrink } from './grey-image'
import type { Plane } from './grey-image'

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
