import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { unlike } from './blocks'
import type { ColourPlanes } from './differences'
import { CloseLook } from './mark'
import type { Told } from './mark'
import { oddsOfPart } from './odds'
import { pairOf } from './pair'
import type { Colour } from './pair'

const [W, H, PX_PER_MM] = [140, 120, 11]
const TIN: Colour = [180, 180, 176]
const GLINT: Colour = [250, 250, 246]
const BODY: Colour = [125, 95, 62]
const BARE: Colour = [16, 78, 36]

/** A bare board with spots of colours on it: left edge, upper edge, width, height, px. */
function board(...spots: readonly (readonly [Colour, number, number, number, number])[]): ColourPlanes {
  const planes = BARE.map((v) => new Float32Array(W * H).fill(v))
  // Something as bright as metal gets, so that metal is known by it.
  for (const [colour, x0, y0, wide, high] of [[GLINT, 2, 2, 20, 6] as const, ...spots])
    for (let y = y0; y < y0 + high; y++)
      for (let x = x0; x < x0 + wide; x++) planes.forEach((p, c) => (p[y * W + x] = colour[c]!))
  return { widthPx: W, heightPx: H, factor: 1, red: planes[0]!, green: planes[1]!, blue: planes[2]! }
}
/** An 0402 on its pads, in the middle; and the pads alone. */
const pads = (tin = TIN) => [[tin, 60, 57, 6, 7] as const, [tin, 74, 57, 6, 7] as const]
const bare = (tin?: Colour) => board(...pads(tin))
const fitted = (tin?: Colour) => board(...pads(tin), [BODY, 66, 57, 8, 6] as const)
const cluster = (x = 70, y = 60) => ({ blocks: [0], beyond: 9, x0: x - 4, y0: y - 4, x1: x + 4, y1: y + 4 })
const look = (photo: ColourPlanes, other: ColourPlanes) => {
  const pair = pairOf(photo, other)
  const differ = unlike(pair, { sidePx: 7, stepPx: 3, reachPx: 3, flat: 1 })
  return new CloseLook(pair, { ...differ, by: Float32Array.of(30) }, PX_PER_MM).at(cluster())
}

describe('a place looked at closely', () => {
  it('differs where a part is gone, between bare pads, and is as bare as the board round it', () => {
    const gone = look(bare(), fitted())
    expect(gone.core).toBeGreaterThan(50)
    expect(gone.least).toBeGreaterThan(50)
    expect(gone).toMatchObject({ middleBare: 0, colourless: false })
    expect(gone.ends * gone.otherEnds).toBeGreaterThan(0.1)
    expect(look(board(), board([BODY, 66, 57, 8, 6])).ends).toBe(0)
    expect(gone.middle).toBeGreaterThan(50)
    expect(gone.otherBare).toBeGreaterThan(50)
  })
  it('does not where the solder only shines otherwise, or the part sits some pixels aside', () => {
    const shines = look(fitted(TIN), fitted(GLINT))
    expect(shines).toMatchObject({ middle: 0, metalMm2: 0, otherMetalMm2: 0 })
    expect(Math.max(shines.core, shines.least)).toBeLessThanOrEqual(6)
    const aside = look(board([BODY, 68, 59, 8, 6]), board([BODY, 66, 57, 8, 6]))
    expect(aside.core).toBe(0)
    expect(aside.shiftMm).toBeCloseTo(Math.hypot(2, 2) / PX_PER_MM, 9)
  })
  it('counts the bare metal that one of them shows, and is lighter by what it is lighter', () => {
    expect(look(board([TIN, 66, 57, 8, 6]), board()).metalMm2).toBeCloseTo(48 / PX_PER_MM ** 2, 9)
    expect(look(board(), board([TIN, 66, 57, 8, 6])).otherMetalMm2).toBeCloseTo(48 / PX_PER_MM ** 2, 9)
    expect(look(bare(), bare()).lighter).toBe(0)
    expect(look(bare(), fitted()).lighter).toBeGreaterThan(2)
  })
  it('knows a board without a colour by most of it, whatever lies in its middle', () => {
    const chip = board([[20, 20, 21], 40, 30, 60, 60])
    expect(look(chip, chip).colourless).toBe(false)
    const black = board([[24, 24, 26], 0, 10, W, H - 10])
    expect(look(black, black).colourless).toBe(true)
  })
  it('says nothing of what the other photo does not show', () => {
    const cut = fitted()
    for (const plane of [cut.red, cut.green, cut.blue]) for (let i = 55 * W; i < W * H; i++) plane[i] = NaN
    const { cluster: _, colourless: __, ...numbers } = look(bare(), cut)
    for (const [what, value] of Object.entries(numbers)) expect(value, what).not.toBeNaN()
    expect(numbers.core).toBe(0)
  })
})

const told = (more: Partial<Told> = {}): Told => ({
  cluster: cluster(),
  by: 30,
  core: 60,
  least: 45,
  otherBare: 60,
  ends: 1,
  otherEnds: 1,
  middle: 60,
  middleBare: 5,
  shiftMm: 0,
  nowhere: 60,
  movedMm: 0,
  longMm: 1.2,
  metalMm2: 0.3,
  otherMetalMm2: 0.05,
  lighter: 2,
  colourless: false,
  ...more,
})

describe('the odds that it is a part', () => {
  it('rise with what differs, bare pads and bare board between them, and fall with size, light and what stands up', () => {
    const usual = oddsOfPart(told())
    expect(usual).toBeGreaterThan(0.5)
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 0.95, noNaN: true }), (share) => {
        for (const [what, less] of Object.entries({
          least: told({ least: 45 * share }),
          core: told({ core: 60 * share }),
          middle: told({ middle: 60 * share }),
          'not bare': told({ middleBare: 5 + 60 * (1 - share) }),
          metal: told({ metalMm2: 0.24 * share }),
          'metal of the other': told({ otherMetalMm2: 0.05 / share }),
          large: told({ longMm: 2 / share }),
          shifted: told({ shiftMm: 0.3 * (1 - share) }),
          'seen close by': told({ nowhere: 60 * share }),
          moved: told({ movedMm: 0.4 * (1 - share) }),
          light: told({ lighter: 2 + 20 * (1 - share) }),
          'no ends': told({ ends: share, otherEnds: share }),
        }))
          expect(oddsOfPart(less), what).toBeLessThan(usual)
      }),
    )
  })
})
