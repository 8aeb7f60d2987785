import fc from 'fast-check'
import { expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { lightField } from './light-field'
import type { Shifted } from './light-field'

/** A field of 900 tips in two directions with a smooth shift, and a swath that was dragged besides. */
function field(
  shift: readonly [number, number],
  bend: number,
  drag: readonly [number, number],
): { tips: Shifted[]; swath: number[] } {
  const swath: number[] = []
  const tips = Array.from({ length: 900 }, (_, i): Shifted => {
    const [x, y] = [(i % 30) - 15, Math.floor(i / 30) - 15]
    const beamDeg = x < 0 ? 45 : 225
    const smooth = [
      shift[0] + bend * x * y * 1e-4 + (beamDeg === 45 ? 0.02 : 0),
      shift[1] - bend * y * y * 1e-4,
    ] as const
    const dragged = x >= 3 && x < 9 && y >= 2 && y < 12
    if (dragged) swath.push(i)
    return {
      mm: [x, y],
      beamDeg,
      offMm: [smooth[0] + (dragged ? drag[0] : 0), smooth[1] + (dragged ? drag[1] : 0)],
    }
  })
  return { tips, swath }
}

it('takes out what light and lens do to all alike and leaves a swath that was dragged', () => {
  const mm = between(-0.15, 0.15)
  const dragged = fc.tuple(mm, mm).filter(([x, y]) => Math.hypot(x, y) > 0.05)
  fc.assert(
    fc.property(fc.tuple(mm, mm), between(-2, 2), dragged, (shift, bend, drag) => {
      const { tips, swath } = field(shift, bend, drag)
      const { at } = lightField(tips)
      tips.forEach((tip, i) => {
        const [sx, sy] = at(tip.mm, tip.beamDeg)
        const want = swath.includes(i) ? drag : [0, 0]
        expect(Math.hypot(tip.offMm[0] - sx - want[0]!, tip.offMm[1] - sy - want[1]!)).toBeLessThan(0.012)
      })
    }),
    { numRuns: 12 },
  )
})
it('with a handful of tips falls back on the median of each direction', () => {
  const { at } = lightField([0.1, 0.12, 0.5].map((x) => ({ mm: [x, 0], beamDeg: 45, offMm: [x, 0] })))
  expect(at([3, 3], 45)).toEqual([0.12, 0])
  expect(at([3, 3], 90)).toEqual([0, 0])
})
