import { median } from '../../maths/median'
import { byRatio } from './differences'
import type { ColourPlanes } from './differences'

/** Both photos as they are compared: one laid over the other, in even light, by ratios; and where each shows bare metal. */
export interface PhotoPair {
  readonly photo: ColourPlanes
  readonly other: ColourPlanes
  readonly metal: Uint8Array
  readonly otherMetal: Uint8Array
  /** What each place is told apart by, four numbers side by side. */
  readonly shades: Float32Array
  readonly otherShades: Float32Array
}

/** Bare metal is bright and has no colour: shares of the brightest, and of its own brightness. */
const METAL_BRIGHT = 0.5
const METAL_COLOUR = 0.33
/** Share of a photo’s brightest pixels that is its metal’s brightest. */
const BRIGHTEST = 0.997
/** Most that two places of bare metal differ by, levels: solder shines as it lies to the light, and that is no difference. */
const METAL_DIFFERS = 6

/** A pair of the photos in even light, 0 to 255. */
export function pairOf(plainPhoto: ColourPlanes, plainOther: ColourPlanes): PhotoPair {
  const { green } = plainPhoto
  const brightest = Float32Array.from(green).sort()[Math.floor(BRIGHTEST * green.length)] ?? 0
  const [photo, other] = [byRatio(plainPhoto), byRatio(plainOther)]
  const [metal, otherMetal] = [metalOf(plainPhoto, brightest), metalOf(plainOther, brightest)]
  return {
    photo,
    other,
    metal,
    otherMetal,
    shades: shadesOf(photo, metal),
    otherShades: shadesOf(other, otherMetal),
  }
}

function metalOf({ red, green, blue }: ColourPlanes, brightest: number): Uint8Array {
  const metal = new Uint8Array(green.length)
  for (let at = 0; at < metal.length; at++) {
    const [r, g, b] = [red[at]!, green[at]!, blue[at]!]
    const least = Math.min(r, g, b)
    if (least > METAL_BRIGHT * brightest && Math.max(r, g, b) - least < METAL_COLOUR * g) metal[at] = 1
  }
  return metal
}

/** Difference of two colours, told by that of each channel: of grey, and of colours beside it. */
const apart = (red: number, green: number, blue: number): number =>
  Math.abs(red + green + blue) / 3 + (Math.abs(red - green) + Math.abs(blue - green)) / 2

export function greyPlane({ red, green, blue }: ColourPlanes): Float32Array {
  const grey = new Float32Array(green.length)
  for (let at = 0; at < grey.length; at++) grey[at] = (red[at]! + green[at]! + blue[at]!) / 3
  return grey
}

/** What `apart` tells places by, side by side, four numbers each: grey, half of red and of blue beyond green, and whether it is metal. */
function shadesOf({ red, green, blue }: ColourPlanes, metal: Uint8Array): Float32Array {
  const shades = new Float32Array(4 * metal.length)
  for (let at = 0, k = 0; at < metal.length; at++, k += 4) {
    const [r, g, b] = [red[at]!, green[at]!, blue[at]!]
    shades[k] = (r + g + b) / 3
    shades[k + 1] = (r - g) / 2
    shades[k + 2] = (b - g) / 2
    shades[k + 3] = metal[at]!
  }
  return shades
}

/** Difference of a place of the photo from one of the other, levels; that of metal from metal is little. */
export function differenceOf({ shades: a, otherShades: b }: PhotoPair, p: number, q: number): number {
  const [i, j] = [4 * p, 4 * q]
  const d = Math.abs(a[i]! - b[j]!) + Math.abs(a[i + 1]! - b[j + 1]!) + Math.abs(a[i + 2]! - b[j + 2]!)
  return d > METAL_DIFFERS && a[i + 3]! > 0 && b[j + 3]! > 0 ? METAL_DIFFERS : d
}

/** Red, green, blue, 0 to 255. */
export type Colour = readonly [red: number, green: number, blue: number]

/** Difference of two colours. */
export const colourDifference = (a: Colour, b: Colour): number => apart(a[0] - b[0], a[1] - b[1], a[2] - b[2])

/** From one field whose ground is told to the next, how far round it, and every how many pixels, working px. */
const GROUND = { stepPx: 40, reachPx: 90, every: 9 } as const

/** The colour of the bare board round a place: what most of a field of some mm shows. */
export function groundOf(of: ColourPlanes): (x: number, y: number) => Colour {
  const { widthPx: w, heightPx: h } = of
  const { stepPx, reachPx, every } = GROUND
  const [columns, rows] = [Math.ceil(w / stepPx), Math.ceil(h / stepPx)]
  const plane = (values: Float32Array): Float32Array =>
    Float32Array.from({ length: columns * rows }, (_, k) => {
      const [cx, cy] = [((k % columns) + 0.5) * stepPx, (Math.floor(k / columns) + 0.5) * stepPx]
      const seen: number[] = []
      for (let y = Math.max(0, cy - reachPx); y < Math.min(h, cy + reachPx); y += every)
        for (let x = Math.max(0, cx - reachPx); x < Math.min(w, cx + reachPx); x += every) {
          const v = values[y * w + x]!
          if (v === v) seen.push(v)
        }
      return seen.length === 0 ? 0 : median(Float32Array.from(seen))
    })
  const [red, green, blue] = [plane(of.red), plane(of.green), plane(of.blue)]
  return (x, y) => {
    const k =
      Math.min(rows - 1, Math.floor(y / stepPx)) * columns + Math.min(columns - 1, Math.floor(x / stepPx))
    return [red[k]!, green[k]!, blue[k]!]
  }
}
