import { colourDifference } from './pair'
import type { Colour, PhotoPair } from './pair'
import type { ColourPlanes } from './differences'

/** How far from the middle of a small part the middle of its pads is, mm: from 0402 to 1206, and a little to each side. */
const ENDS_MM = [0.36, 0.47, 0.59, 0.73, 0.91, 1.18, 1.45] as const
const WAYS = 8

/** Share of metal in squares of three pixels, from sums over rectangles. */
export class MetalSeen {
  private readonly sums: Int32Array
  private readonly ends: readonly (readonly [dx: number, dy: number])[]

  constructor(
    metal: Uint8Array,
    private readonly widthPx: number,
    private readonly heightPx: number,
    pxPerMm: number,
  ) {
    const wide = widthPx + 1
    this.sums = new Int32Array(wide * (heightPx + 1))
    for (let y = 0; y < heightPx; y++)
      for (let x = 0, row = 0; x < widthPx; x++) {
        row += metal[y * widthPx + x]!
        this.sums[(y + 1) * wide + x + 1] = this.sums[y * wide + x + 1]! + row
      }
    this.ends = ENDS_MM.flatMap((mm) =>
      Array.from({ length: WAYS }, (_, k) => {
        const way = (k * Math.PI) / WAYS
        return [Math.round(mm * pxPerMm * Math.cos(way)), Math.round(mm * pxPerMm * Math.sin(way))] as const
      }),
    )
  }

  at(x: number, y: number): number {
    if (x < 1 || y < 1 || x >= this.widthPx - 1 || y >= this.heightPx - 1) return 0
    const wide = this.widthPx + 1
    const [up, down] = [(y - 1) * wide, (y + 2) * wide]
    const { sums } = this
    return (sums[down + x + 2]! - sums[down + x - 1]! - sums[up + x + 2]! + sums[up + x - 1]!) / 9
  }

  /** How surely a place lies between two ends of bare metal, 0 to 1. */
  betweenEnds(x: number, y: number): number {
    let most = 0
    for (const [dx, dy] of this.ends)
      most = Math.max(most, Math.min(this.at(x + dx, y + dy), this.at(x - dx, y - dy)))
    return most
  }
}

/** Mean colour of a square of `side` pixels from a corner on; of what is seen of it. */
export function meanColour(
  { red, green, blue, widthPx }: ColourPlanes,
  x0: number,
  y0: number,
  side: number,
): Colour {
  let [r, g, b, n] = [0, 0, 0, 0]
  for (let y = y0; y < y0 + side; y++)
    for (let at = y * widthPx + x0, to = at + side; at < to; at++) {
      if (Number.isNaN(red[at]!)) continue
      r += red[at]!
      g += green[at]!
      b += blue[at]!
      n++
    }
  return n === 0 ? [0, 0, 0] : [r / n, g / n, b / n]
}

/** A field of the photo, and how far the other one was moved over it for the best fit, working px. */
export interface Fitted {
  readonly x0: number
  readonly y0: number
  readonly x1: number
  readonly y1: number
  readonly shift: readonly [dx: number, dy: number]
}

/** Share of metal that ends have beyond what lies between them. */
const ENDS = 0.6

/**
 * The place between two bare ends of this photo that differs most from the other one: where a small part sits on its pads, or
 * would. None: nothing differs there.
 * @returns by how much, levels, and how far its colour is from the bare board’s
 */
export function middleOf(
  { photo, other, metal }: PhotoPair,
  seen: MetalSeen,
  ground: (x: number, y: number) => Colour,
  { x0, y0, x1, y1, shift }: Fitted,
): { readonly differs: number; readonly bare: number } {
  let best = { differs: 0, bare: 0 }
  for (let y = y0; y <= y1; y++)
    for (let x = x0; x <= x1; x++) {
      if (metal[y * photo.widthPx + x]! || seen.betweenEnds(x, y) - seen.at(x, y) < ENDS) continue
      const here = meanColour(photo, x - 1, y - 1, 3)
      const differs = colourDifference(here, meanColour(other, x - 1 + shift[0], y - 1 + shift[1], 3))
      if (differs > best.differs) best = { differs, bare: colourDifference(here, ground(x, y)) }
    }
  return best
}
