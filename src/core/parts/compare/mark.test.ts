import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { byRatio, unlike } from './differences'
import type { ColourPlanes } from './differences'
import { isBesideTall, lookAt, oddsOfPart } from './mark'
import type { Told } from './mark'

const [W, H] = [140, 120]
type Colour = readonly [number, number, number]
const TIN: Colour = [180, 180, 176]
const GLINT: Colour = [250, 250, 246]
const BODY: Colour = [125, 95, 62]
const BARE: Colour = [16, 78, 36]

/** A bare board with one spot of a colour in its middle. */
function board(spot: Colour, x = 70, y = 60): ColourPlanes {
  const planes = BARE.map((v) => new Float32Array(W * H).fill(v))
  for (let dy = -4; dy <= 4; dy++)
    for (let dx = -4; dx <= 4; dx++) planes.forEach((p, c) => (p[(y + dy) * W + x + dx] = spot[c]!))
  return { widthPx: W, heightPx: H, factor: 1, red: planes[0]!, green: planes[1]!, blue: planes[2]! }
}
const cluster = (x = 70, y = 60) => ({ blocks: [0], beyond: 9, x0: x - 4, y0: y - 4, x1: x + 4, y1: y + 4 })
const look = (photo: ColourPlanes, other: ColourPlanes) =>
  lookAt(
    cluster(),
    { photo: byRatio(photo), other: byRatio(other), plainPhoto: photo, plainOther: other, brightest: 250 },
    unlike(photo, other, { sidePx: 7, stepPx: 3, reachPx: 5, flat: 1 }),
  )

describe('a place looked at closely', () => {
  it('differs where a part is gone, and not where metal only shines otherwise', () => {
    expect(look(board(BARE), board(BODY)).core4).toBeGreaterThan(60)
    expect(look(board(TIN), board(GLINT)).core3).toBe(0)
    expect(look(board(TIN), board(BODY)).core4).toBeGreaterThan(20)
  })
  it('counts the bare metal of this photo, and is lighter by what it is lighter', () => {
    expect(look(board(TIN), board(BODY)).metalPx).toBe(81)
    expect(look(board(BODY), board(TIN)).metalPx).toBe(0)
    expect(look(board(BARE), board(BARE)).lighter).toBe(0)
    expect(look(board(TIN), board(BARE)).lighter).toBeGreaterThan(10)
  })
  it('is the same where it only misfits by a few pixels', () => {
    expect(look(board(BODY, 72, 61), board(BODY)).core3).toBe(0)
  })
})

const told = (more: Partial<Told> = {}): Told => ({
  cluster: { ...cluster(), blocks: Array.from({ length: 10 }, (_, i) => i) },
  core3: 60,
  core4: 45,
  by: 30,
  nearby: 0.8,
  longPx: 12,
  metalPx: 60,
  lighter: 2,
  ...more,
})

describe('the odds that it is a part', () => {
  it('rise with what differs and with bare pads, and fall with size, light, and what stands beside', () => {
    const usual = oddsOfPart(told(), false)
    expect(usual).toBeGreaterThan(0.5)
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.95, noNaN: true }), (share) => {
        for (const less of [
          told({ core3: 60 * share }),
          told({ core4: 45 * share }),
          told({ by: 30 * share }),
          told({ metalPx: 40 * share }),
          told({ longPx: 12 / share }),
          told({ lighter: 2 + 20 * share }),
        ])
          expect(oddsOfPart(less, false)).toBeLessThan(usual)
      }),
    )
    expect(oddsOfPart(told(), true)).toBeLessThan(usual)
  })
  it('are less beside something large that is seen elsewhere, and only there', () => {
    const at = (x: number, blocks: number, nearby: number) =>
      told({ nearby, cluster: { ...cluster(x), blocks: Array.from({ length: blocks }, (_, i) => i) } })
    const own = told()
    expect(isBesideTall(own, [own, at(86, 40, 0.3)])).toBe(true)
    expect(isBesideTall(own, [own, at(120, 40, 0.3)])).toBe(false)
    expect(isBesideTall(own, [own, at(86, 8, 0.3)])).toBe(false)
    expect(isBesideTall(own, [own, at(86, 40, 0.9)])).toBe(false)
    expect(isBesideTall(own, [own])).toBe(false)
  })
})
