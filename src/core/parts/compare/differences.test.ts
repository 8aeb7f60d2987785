import { describe, expect, it } from 'vitest'
import { seeded } from '../../maths/seeded'
import { beyondUsual, clustersOf } from './clusters'
import { unlike } from './blocks'
import { byRatio, coloursOf } from './differences'
import type { ColourPlanes } from './differences'
import { evened } from './light'
import { colourDifference, differenceOf, pairOf } from './pair'
import type { Colour } from './pair'

const [W, H] = [160, 120]
/** A board of small bright and dark squares on an even ground; what lies under `hidden` is bare. */
function board(hidden: readonly (readonly [x: number, y: number])[] = []): ColourPlanes {
  const draw = seeded(5)
  const plane = () => new Float32Array(W * H).fill(60)
  const [red, green, blue] = [plane(), plane(), plane()]
  for (let i = 0; i < 90; i++) {
    const [x0, y0] = [Math.floor(draw() * (W - 8)), Math.floor(draw() * (H - 8))]
    const colour = [draw() * 200, draw() * 200, draw() * 200] as const
    if (hidden.some(([x, y]) => Math.abs(x - x0) < 10 && Math.abs(y - y0) < 10)) continue
    for (let y = y0; y < y0 + 6; y++)
      for (let x = x0; x < x0 + 6; x++) [red, green, blue].forEach((p, c) => (p[y * W + x] = colour[c]!))
  }
  return { widthPx: W, heightPx: H, factor: 1, red, green, blue }
}
const each = (of: ColourPlanes, work: (v: number, i: number) => number): ColourPlanes => ({
  ...of,
  red: of.red.map(work),
  green: of.green.map(work),
  blue: of.blue.map(work),
})
const blocks = { sidePx: 7, stepPx: 3, reachPx: 3, flat: 1 }
const differing = (photo: ColourPlanes, other: ColourPlanes) => unlike(pairOf(photo, other), blocks)

describe('light made alike', () => {
  it('takes off a gain and a veil that change slowly, and no part', () => {
    const plain = board()
    const lit = each(plain, (v, i) => v * (0.7 + (0.4 * (i % W)) / W) + 20 * Math.sin(i / W / 40))
    const back = evened(lit, plain)
    const off = plain.green.map((v, i) => Math.abs(v - back.green[i]!))
    expect(off.reduce((a, b) => a + b, 0) / off.length).toBeLessThan(5)
    // What is gone on one of them stays gone.
    const bare = board([[80, 60]])
    const between = evened(lit, bare)
    const most = Math.max(...bare.green.map((v, i) => Math.abs(v - between.green[i]!)))
    expect(most).toBeGreaterThan(40)
  })
})

describe('what differs', () => {
  it('is nothing between a photo and itself, shifted or not, and what is gone', () => {
    const photo = board()
    const same = differing(photo, photo)
    expect(Math.max(...same.by.filter((v) => !Number.isNaN(v)))).toBe(0)
    const moved = each(photo, (_, i) => i)
    ;(['red', 'green', 'blue'] as const).forEach((c) => {
      for (let i = 0; i < W * H; i++) moved[c][i] = photo[c][Math.min(W * H - 1, i + 3)]!
    })
    const shifted = differing(photo, moved)
    const inside = shifted.by.filter((v) => !Number.isNaN(v)).sort()
    expect(inside[Math.floor(0.95 * inside.length)]).toBe(0)
    const gone = differing(board([[80, 60]]), photo)
    const clusters = clustersOf(gone, beyondUsual(gone), { high: 5, low: 3.5, contrast: 5 })
    expect(clusters.length).toBeGreaterThan(0)
    for (const c of clusters)
      expect(Math.hypot((c.x0 + c.x1) / 2 - 80, (c.y0 + c.y1) / 2 - 60)).toBeLessThan(22)
  })
  it('is nothing where the other photo shows nothing', () => {
    const photo = board()
    const cut = each(photo, (v, i) => (i % W > 100 ? NaN : v))
    const { by, columns } = differing(photo, cut)
    by.forEach((v, k) => {
      if ((k % columns) * 3 > 100) expect(v).toBeNaN()
    })
  })
  it('is found beside what differs much more: what is usual is told by what differs little', () => {
    const photo = board()
    // Two fifths of it stand up, and are seen elsewhere.
    const moved = each(photo, (_, i) => i)
    ;(['red', 'green', 'blue'] as const).forEach((c) => {
      for (let i = 0; i < W * H; i++) moved[c][i] = photo[c][i % W < W * 0.42 ? (i + 9 * W) % (W * H) : i]!
    })
    const bare = board([[80, 60]])
    const differ = differing(bare, moved)
    const beyond = beyondUsual(differ)
    const near = [...beyond].filter(
      (_, k) =>
        Math.abs((k % differ.columns) * 3 - 80) < 10 &&
        Math.abs(Math.floor(k / differ.columns) * 3 - 60) < 10,
    )
    expect(Math.max(...near)).toBeGreaterThan(4)
  })
})

describe('colours', () => {
  it('are means of the photo’s pixels, and differ by grey and by colour', () => {
    const rgba = Uint8Array.from([10, 20, 30, 255, 30, 40, 50, 255, 50, 60, 70, 255, 70, 80, 90, 255])
    const planes = coloursOf(rgba, 2, 2, 2)
    expect([planes.red[0], planes.green[0], planes.blue[0]]).toEqual([40, 50, 60])
    expect(colourDifference([40, 50, 60], [40, 50, 60])).toBe(0)
    // Grey by 10, red against green by 30, blue against green by none; of places as of colours.
    expect(colourDifference([40, 50, 60], [70, 50, 60])).toBe(10 + 15)
    const pair = pairOf(planes, { ...planes, red: Float32Array.from([70]) })
    const [here, there] = [pair.photo, pair.other].map(({ red, green, blue }): Colour => [
      red[0]!,
      green[0]!,
      blue[0]!,
    ])
    expect(differenceOf(pair, 0, 0)).toBeCloseTo(colourDifference(here!, there!), 3)
    const dark = byRatio({ ...planes, green: Float32Array.from([0, 255]) }).green
    expect(dark[0]).toBe(0)
    expect(dark[1]).toBeCloseTo(255, 4)
  })
})
