import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../maths/between.testing'
import { seeded } from '../maths/seeded'
import { blur } from './grey-image'
import type { GreyImage } from './grey-image'
import { findOverlay, lay, refineOverlay, worked } from './overlay'

/** A picture of discs and bars, as it is seen through a similarity about its middle. */
function pattern(
  seed: number,
  size: number,
  grows: number,
  turnDeg: number,
  dx = 0,
  mirrored = false,
  discs = 260,
): GreyImage {
  const draw = seeded(seed)
  const turn = (turnDeg * Math.PI) / 180
  const [c, s] = [grows * Math.cos(turn), grows * Math.sin(turn)]
  const values = new Float32Array(size * size).fill(70)
  const at = (x: number, y: number) => {
    const [u, v] = [(mirrored ? size - x : x) - size / 2, y - size / 2]
    return [size / 2 + c * u - s * v + dx, size / 2 + s * u + c * v] as const
  }
  for (let i = 0; i < discs; i++) {
    const [x, y] = at((draw() * 1.6 - 0.3) * size, (draw() * 1.6 - 0.3) * size)
    const [r, grey, long] = [
      (2 + 7 * draw()) * grows,
      30 + 200 * draw(),
      (draw() < 0.5 ? 0 : 14 * draw()) * grows,
    ]
    const way = draw() * Math.PI + turn
    for (let py = Math.floor(y - r - long); py <= y + r + long; py++)
      for (let px = Math.floor(x - r - long); px <= x + r + long; px++) {
        if (px < 0 || py < 0 || px >= size || py >= size) continue
        const [u, v] = [px - x, py - y]
        const along = Math.max(-long, Math.min(long, u * Math.cos(way) + v * Math.sin(way)))
        if (Math.hypot(u - along * Math.cos(way), v - along * Math.sin(way)) < r)
          values[py * size + px] = grey
      }
  }
  const soft = blur({ widthPx: size, heightPx: size, values }, 1)
  return { widthPx: size, heightPx: size, grey: Uint8Array.from(soft.values) }
}

describe('one photo laid over another', () => {
  it('is found whatever its scale and turn, and then to a fraction of a pixel', () => {
    fc.assert(
      fc.property(
        fc.nat(1000),
        between(0.75, 1.35),
        between(-180, 180),
        between(-25, 25),
        (seed, grows, turn, dx) => {
          const SIZE = 420
          const [photo, other] = [pattern(seed, SIZE, 1, 0), pattern(seed, SIZE, grows, turn, dx)]
          const found = findOverlay(photo, other)
          expect(found).not.toBeNull()
          const { overlay, spreadPx } = refineOverlay(found!, worked(photo, 1), worked(other, 1), {
            reach: 4,
            step: 40,
          })
          const [c, s] = [grows * Math.cos((turn * Math.PI) / 180), grows * Math.sin((turn * Math.PI) / 180)]
          for (const [x, y] of [
            [150, 170],
            [260, 190],
            [210, 270],
          ] as const) {
            const [px, py] = lay(overlay, x, y)
            const [u, v] = [x - SIZE / 2, y - SIZE / 2]
            expect(
              Math.hypot(px - SIZE / 2 - c * u + s * v - dx, py - SIZE / 2 - s * u - c * v),
            ).toBeLessThan(0.6)
          }
          expect(spreadPx).toBeLessThan(0.5)
        },
      ),
      { numRuns: 6 },
    )
  })
  it('is found by a small piece of it too', () => {
    const [SIZE, SIDE, LEFT, TOP] = [1400, 420, 800, 300]
    const other = pattern(21, SIZE, 1, 25, 0, false, 2600)
    const whole = pattern(21, SIZE, 1, 0, 0, false, 2600)
    const grey = new Uint8Array(SIDE * SIDE)
    for (let y = 0; y < SIDE; y++)
      grey.set(whole.grey.subarray((TOP + y) * SIZE + LEFT, (TOP + y) * SIZE + LEFT + SIDE), y * SIDE)
    const found = findOverlay({ widthPx: SIDE, heightPx: SIDE, grey }, other)
    expect(found).not.toBeNull()
    const [c, s] = [Math.cos((25 * Math.PI) / 180), Math.sin((25 * Math.PI) / 180)]
    const [u, v] = [LEFT + SIDE / 2 - SIZE / 2, TOP + SIDE / 2 - SIZE / 2]
    const [px, py] = lay(found!, SIDE / 2, SIDE / 2)
    expect(Math.hypot(px - SIZE / 2 - c * u + s * v, py - SIZE / 2 - s * u - c * v)).toBeLessThan(8)
  })
  it('is not found where they show other things, or one is mirrored', () => {
    const photo = pattern(3, 420, 1, 0)
    expect(findOverlay(photo, pattern(4, 420, 1, 10))).toBeNull()
    expect(findOverlay(photo, pattern(3, 420, 1, 0, 0, true))).toBeNull()
    expect(findOverlay(photo, { ...photo, grey: new Uint8Array(420 * 420).fill(90) })).toBeNull()
  })
})
