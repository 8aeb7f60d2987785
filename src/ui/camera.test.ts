import { expect, it } from 'vitest'
import { fitting, wheelFactor, zoomed } from './camera'

it('a box is fitted into the middle, as large as there is room', () => {
  expect(fitting([-10, 5, 20, 10], 400, 400)).toEqual({ pxPerMm: 20, xPx: 200, yPx: 0 })
})

it('zooming keeps the place under the hand, within its limits', () => {
  const fitted = fitting([0, 0, 100, 100], 500, 500)
  const near = zoomed(fitted, fitted, 50, 120, 80, 2)
  const at = (c: typeof near, px: number, from: number) => (px - from) / c.pxPerMm
  expect(near.pxPerMm).toBe(10)
  expect(at(near, 120, near.xPx)).toBeCloseTo(at(fitted, 120, fitted.xPx), 9)
  expect(at(near, 80, near.yPx)).toBeCloseTo(at(fitted, 80, fitted.yPx), 9)
  expect(zoomed(near, fitted, 50, 0, 0, 1000).pxPerMm).toBe(50)
  expect(zoomed(near, fitted, 50, 0, 0, 1e-6).pxPerMm).toBe(4)
  expect(wheelFactor(-100)).toBeGreaterThan(1)
})
