import { describe, expect, it } from 'vitest'
import { seeded } from '../../maths/seeded'
import type { ColourPlanes } from './differences'
import { evened } from './light'
import { asSharp } from './sharpness'
import { movedPx, nearestColour } from './nearby'

const [W, H] = [200, 160]
const planes = (of: (x: number, y: number, c: number) => number): ColourPlanes => {
  const [red, green, blue] = [0, 1, 2].map((c) =>
    Float32Array.from({ length: W * H }, (_, at) => of(at % W, Math.floor(at / W), c)),
  ) as [Float32Array, Float32Array, Float32Array]
  return { widthPx: W, heightPx: H, factor: 1, red, green, blue }
}
const draw = seeded(11)
const parts = Array.from({ length: 60 }, () => [
  Math.floor(draw() * (W - 10)),
  Math.floor(draw() * (H - 10)),
  draw() < 0.5 ? 20 : 180,
])
/** Small dark and bright parts on green. */
const board = planes((x, y, c) => {
  const part = parts.findLast(([px, py]) => x >= px! && x < px! + 9 && y >= py! && y < py! + 5)
  return part ? part[2]! : [20, 80, 35][c]!
})
const glared = (of: ColourPlanes, x0: number, y0: number, most: number): ColourPlanes => {
  const glow = (at: number) =>
    most * Math.exp(-(((at % W) - x0) ** 2 + (Math.floor(at / W) - y0) ** 2) / 1800)
  const lit = (values: Float32Array) => values.map((v, at) => v + glow(at))
  return { ...of, red: lit(of.red), green: lit(of.green), blue: lit(of.blue) }
}
const apart = (a: ColourPlanes, b: ColourPlanes): Float32Array =>
  a.green.map((v, at) => Math.abs(v - b.green[at]!))
const share = (values: Float32Array, of: number) => values.toSorted()[Math.floor(of * (values.length - 1))]!

describe('light made alike', () => {
  it('leaves parts under glare as dark and as bright as they are, whichever photo has it', () => {
    const shone = glared(board, 100, 80, 90)
    for (const [from, to] of [
      [board, shone],
      [shone, board],
    ] as const)
      expect(share(apart(evened(from, to), to), 0.99)).toBeLessThan(16)
  })
  it('is not told by what one of them does not show', () => {
    const cut = planes((x, y, c) =>
      x > 120 ? NaN : [board.red, board.green, board.blue][c]![y * W + x]! / 2,
    )
    const back = evened(cut, board)
    expect(back.green.every((v, at) => Number.isNaN(v) === at % W > 120)).toBe(true)
    const shown = apart(back, board).filter((v) => !Number.isNaN(v))
    expect(share(shown, 0.98)).toBeLessThan(15)
  })
})

describe('focus made alike', () => {
  const soft = (of: ColourPlanes, times: number): ColourPlanes => {
    const once = (v: Float32Array) =>
      v.map((_, at) => {
        const x = at % W
        const y = Math.floor(at / W)
        let sum = 0
        for (let dy = -1; dy <= 1; dy++)
          for (let dx = -1; dx <= 1; dx++)
            sum += v[Math.min(H - 1, Math.max(0, y + dy)) * W + Math.min(W - 1, Math.max(0, x + dx))]!
        return sum / 9
      })
    let { red, green, blue } = of
    for (let i = 0; i < times; i++) [red, green, blue] = [once(red), once(green), once(blue)]
    return { ...of, red, green, blue }
  }
  it('makes the sharper one as blunt as the other, whichever it is, and leaves two that are alike', () => {
    const blunt = soft(board, 2)
    const [own, others] = asSharp(board, blunt)
    expect(others).toBe(blunt)
    expect(share(apart(own, blunt), 0.98)).toBeLessThan(0.4 * share(apart(board, blunt), 0.98))
    const [same, softer] = asSharp(blunt, board)
    expect(same).toBe(blunt)
    expect(softer.green).toEqual(own.green)
    expect(asSharp(board, board)).toEqual([board, board])
  })
  it('keeps what is not shown apart from what is', () => {
    const cut = planes((x, y, c) => (x > 120 ? NaN : [board.red, board.green, board.blue][c]![y * W + x]!))
    const [, softer] = asSharp(soft(board, 2), cut)
    softer.green.forEach((v, at) => {
      expect(Number.isNaN(v)).toBe(at % W > 120)
      if (at % W <= 120) expect(v).toBeGreaterThan(10)
    })
  })
})

describe('what is close by', () => {
  it('has the colour of a part that is there, moved a little, and not of one that is gone', () => {
    const moved = planes((x, y) => (Math.abs(x - 103) < 3 && Math.abs(y - 82) < 3 ? 180 : 60))
    const bare = planes(() => 60)
    expect(nearestColour(moved, [180, 180, 180], 100, 80)).toBeLessThan(1)
    expect(nearestColour(bare, [180, 180, 180], 100, 80)).toBe(120)
    expect(nearestColour(bare, [180, 180, 180], 0, 0)).toBe(120)
  })
  it('looks most alike where it was moved to', () => {
    const at = (x0: number) =>
      planes((x, y) => (x >= x0 && x < x0 + 9 && y >= 78 && y < 84 ? 20 + 8 * (x - x0) : 60)).green
    expect(movedPx(at(96), at(96), W, H, 100, 80)).toBe(0)
    expect(movedPx(at(96), at(99), W, H, 100, 80)).toBe(3)
    // Of a corner, and where nothing is shown.
    expect(movedPx(at(0), at(0), W, H, 0, 0)).toBe(0)
    expect(movedPx(at(96), at(96).fill(NaN), W, H, 100, 80)).toBe(0)
  })
})
