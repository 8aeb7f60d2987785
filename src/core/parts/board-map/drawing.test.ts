import { describe, expect, it } from 'vitest'
import { indexMap } from './board-map'
import type { BoardPoint } from './board-map'
import { drawingOf, partAt } from './drawing'

const point = (of: Partial<BoardPoint>): BoardPoint => ({
  net: '',
  ref: '',
  pin: '1',
  kind: 'pad',
  side: 'top',
  xMm: 0,
  yMm: 0,
  wMm: 0.5,
  hMm: 0.25,
  drillMm: 0,
  plated: true,
  middle: false,
  ...of,
})
const map = (points: readonly BoardPoint[]) => ({ points, units: '0.001 mm' as const, unconnected: 0 })

describe('a map as it is drawn', () => {
  const of = indexMap(
    map([
      point({ ref: 'R1', net: 'A', xMm: 10, yMm: 5 }),
      point({ ref: 'R1', net: 'B', pin: '2', xMm: 11, yMm: 5 }),
      point({ ref: 'C2', net: 'B', side: 'bottom', xMm: 20, yMm: 8, wMm: 0, hMm: 0 }),
      point({ net: 'B', kind: 'via', side: 'both', xMm: -3, yMm: 1, wMm: 0, hMm: 0, drillMm: 0.75 }),
    ]),
    [{ ref: 'U9', xMm: 40, yMm: 30, turnDeg: 0, side: 'top', value: '', body: '' }],
  )
  const drawing = drawingOf(of)
  it('has every place with its part, net, side and size; where the file says none, a usual one', () => {
    expect([...drawing.points]).toEqual([
      10, 5, 0.5, 0.25, 11, 5, 0.5, 0.25, 20, 8, 0.5, 0.5, -3, 1, 0.75, 0.75,
    ])
    expect([...drawing.of]).toEqual([0, 0, 0, 1, 1, 1, -1, 1])
    expect([...drawing.side]).toEqual([0, 0, 1, 2])
    expect([...drawing.round]).toEqual([0, 0, 0, 1])
    expect(drawing.parts).toEqual(['R1', 'C2', 'U9'])
    expect(drawing.nets).toEqual(['A', 'B'])
    expect(drawing.partSide).toEqual(['top', 'bottom', 'top'])
  })
  it('frames each part a little beyond its pads, and all of it', () => {
    const [left, low, right, high] = drawing.boxes
    expect([left, low, right, high].map((v) => Math.round(v! * 1000) / 1000)).toEqual([
      9.6, 4.725, 11.4, 5.275,
    ])
    expect(drawing.box).toEqual([-3.375, 0.625, 40.5, 30.5])
    expect(drawingOf(indexMap(map([]))).box).toEqual([0, 0, 1, 1])
  })
  it('finds the part at a place, on its own side, the smallest of several, or one close by', () => {
    expect(partAt(drawing, 10.5, 5, 'top', 0)).toBe('R1')
    expect(partAt(drawing, 10.5, 5, 'bottom', 0)).toBeNull()
    expect(partAt(drawing, 10.5, 6, 'top', 0)).toBeNull()
    expect(partAt(drawing, 10.5, 6, 'top', 1)).toBe('R1')
    expect(partAt(drawing, 20, 8, 'bottom', 0)).toBe('C2')
    const nested = drawingOf(
      indexMap(
        map([
          ...[0, 30].map((x, i) => point({ ref: 'XU1', pin: String(i), xMm: x, yMm: x })),
          ...[14, 15].map((x, i) => point({ ref: 'C5', pin: String(i), xMm: x, yMm: 15 })),
        ]),
      ),
    )
    expect(partAt(nested, 14.5, 15, 'top', 0.2)).toBe('C5')
    expect(partAt(nested, 20, 20, 'top', 0.2)).toBe('XU1')
    expect(partAt(nested, 15.6, 15, 'top', 0.5)).toBe('XU1')
  })
})
