import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { bestFit, smallestCircle } from './insertion'
import type { PinAndHole } from './insertion'

const mm = (most: number) => between(-most, most)
const field = (n: number): readonly (readonly [number, number])[] =>
  Array.from({ length: n }, (_, i) => [((i % 6) - 2.5) * 1.2, (Math.floor(i / 6) - 2.5) * 1.2] as const)
/** A small CPU whose pins are bent a little, shifted and turned. */
const bent: fc.Arbitrary<PinAndHole[]> = fc
  .tuple(
    fc.array(fc.tuple(mm(0.15), mm(0.15)), { minLength: 36, maxLength: 36 }),
    mm(0.02),
    mm(0.3),
    mm(0.3),
    fc.integer({ min: 4, max: 36 }),
  )
  .map(([off, turn, sx, sy, n]) =>
    field(n).map((hole, i) => {
      const [x, y] = [hole[0] + off[i]![0], hole[1] + off[i]![1]]
      const [c, s] = [Math.cos(turn), Math.sin(turn)]
      return { name: `A${i + 1}`, hole, pin: [c * x - s * y + sx, s * x + c * y + sy] as const }
    }),
  )
const worst = (pins: readonly PinAndHole[], turn: number, sx: number, sy: number) =>
  Math.max(
    ...pins.map(({ pin, hole }) =>
      Math.hypot(
        Math.cos(turn) * pin[0] - Math.sin(turn) * pin[1] + sx - hole[0],
        Math.sin(turn) * pin[0] + Math.cos(turn) * pin[1] + sy - hole[1],
      ),
    ),
  )

describe('smallest circle', () => {
  it('holds all points and touches two at least', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(mm(3), mm(3)), { minLength: 2, maxLength: 30 }), (points) => {
        const xs = Float64Array.from(points, (p) => p[0])
        const ys = Float64Array.from(points, (p) => p[1])
        const c = smallestCircle(
          xs,
          ys,
          Int32Array.from(points, (_, i) => i),
        )
        const far = points.map(([x, y]) => Math.hypot(x - c.x, y - c.y))
        expect(Math.max(...far)).toBeLessThanOrEqual(c.r + 1e-9)
        expect(far.filter((d) => d > c.r - 1e-7).length).toBeGreaterThanOrEqual(Math.min(2, points.length))
        // No circle a little smaller about any place near it holds them.
        for (let k = 0; k < 16; k++) {
          const [x, y] = [c.x + 0.01 * Math.cos(k), c.y + 0.01 * Math.sin(k)]
          expect(Math.max(...points.map((p) => Math.hypot(p[0] - x, p[1] - y)))).toBeGreaterThanOrEqual(
            c.r - 1e-9,
          )
        }
      }),
    )
  })
})

describe('best-fit insertion', () => {
  it('no turn and shift near it or far from it is better', () => {
    fc.assert(
      fc.property(
        bent,
        fc.array(fc.tuple(mm(0.05), mm(0.4), mm(0.4)), { minLength: 60, maxLength: 60 }),
        (pins, tries) => {
          const fit = bestFit(pins, 0.2)
          const turn = (fit.turnDeg * Math.PI) / 180
          expect(worst(pins, turn, ...fit.shiftMm)).toBeCloseTo(fit.worstMm, 6)
          for (const [dt, dx, dy] of tries)
            for (const scale of [1, 0.05, 0.001])
              expect(
                worst(pins, turn + dt * scale, fit.shiftMm[0] + dx * scale, fit.shiftMm[1] + dy * scale),
              ).toBeGreaterThanOrEqual(fit.worstMm - 1e-6)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('agrees with a search ever finer over turn and shift', () => {
    fc.assert(
      fc.property(bent, (pins) => {
        let best = [0, 0, 0, worst(pins, 0, 0, 0)] as [number, number, number, number]
        for (let size = 0.5; size > 1e-9; size *= 0.8)
          for (const [a, b, c] of [
            [1, 0, 0],
            [-1, 0, 0],
            [0, 1, 0],
            [0, -1, 0],
            [0, 0, 1],
            [0, 0, -1],
            [0.7, 0.7, 0],
            [-0.7, 0.7, 0],
            [0.7, 0, 0.7],
            [-0.7, 0, 0.7],
            [0.7, -0.7, 0],
            [0.7, 0, -0.7],
            [-0.7, -0.7, 0],
            [-0.7, 0, -0.7],
          ] as const) {
            const next = [best[0] + a * size * 0.1, best[1] + b * size, best[2] + c * size] as const
            const w = worst(pins, ...next)
            if (w < best[3]) best = [...next, w]
          }
        expect(bestFit(pins, 0.2).worstMm).toBeLessThanOrEqual(best[3] + 1e-6)
      }),
      { numRuns: 30 },
    )
  })
  it('names the pins that bind and the way they have to go', () => {
    const pins = field(36).map((hole, i): PinAndHole => ({
      name: `A${i + 1}`,
      hole,
      pin: i === 14 ? [hole[0] + 0.4, hole[1]] : hole,
    }))
    const fit = bestFit(pins, 0.15)
    expect(fit.fits).toBe(false)
    const own = fit.binding.find((b) => b.name === 'A15')!
    expect(own.goMm[0]).toBeCloseTo(-0.4, 3)
    expect(fit.binding.map((b) => b.name)).toEqual(['A15'])
    const straightened = pins.map((p) =>
      p.name === 'A15' ? { ...p, pin: [p.pin[0] + own.goMm[0], p.pin[1] + own.goMm[1]] as const } : p,
    )
    expect(bestFit(straightened, 0.15).worstMm).toBeLessThan(fit.worstMm)
  })
  it('a straight CPU drops in however it lies', () => {
    fc.assert(
      fc.property(mm(0.02), mm(0.3), mm(0.3), (turn, sx, sy) => {
        const [c, s] = [Math.cos(turn), Math.sin(turn)]
        const pins = field(36).map((hole, i): PinAndHole => ({
          name: `A${i + 1}`,
          hole,
          pin: [c * hole[0] - s * hole[1] + sx, s * hole[0] + c * hole[1] + sy],
        }))
        const fit = bestFit(pins, 0.1)
        expect(fit.worstMm).toBeLessThan(1e-6)
        expect(fit.turnDeg).toBeCloseTo((-turn * 180) / Math.PI, 4)
      }),
      { numRuns: 40 },
    )
  })
  it('wants pins', () => {
    expect(() => bestFit([], 0.1)).toThrow(RangeError)
  })
})
