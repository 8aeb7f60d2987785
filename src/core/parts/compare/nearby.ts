import { meanColour } from './ends'
import { colourDifference } from './pair'
import type { Colour } from './pair'
import type { ColourPlanes } from './differences'

/** Steps to the places round one, the nearest first. */
export const placesRound = (reach: number): readonly (readonly [dx: number, dy: number])[] =>
  Array.from({ length: (2 * reach + 1) ** 2 }, (_, i) => {
    const side = 2 * reach + 1
    return [(i % side) - reach, Math.floor(i / side) - reach] as const
  })
    .filter(([x, y]) => x * x + y * y <= reach * reach + 1)
    .sort((a, b) => a[0] ** 2 + a[1] ** 2 - b[0] ** 2 - b[1] ** 2)

/** How far round a place its colour is looked for, working px: half a millimetre. */
const ROUND = placesRound(5)

/** How far a colour is from the nearest that is seen close to a place, levels: what was only moved, or stands up, is seen there. */
export function nearestColour(of: ColourPlanes, colour: Colour, x: number, y: number): number {
  let least = Infinity
  for (const [dx, dy] of ROUND)
    if (within(of, x + dx, y + dy))
      least = Math.min(least, colourDifference(colour, meanColour(of, x + dx - 1, y + dy - 1, 3)))
  return least === Infinity ? 0 : least
}

const within = ({ widthPx, heightPx }: ColourPlanes, x: number, y: number) =>
  x >= 1 && y >= 1 && x < widthPx - 1 && y < heightPx - 1

/** Half the side of the square that is looked for, and how far off, working px. */
const HALF = 8
const REACH = placesRound(4)
/** Variance of what is read where there is nothing to see, levels². */
const GRAIN = 9

/**
 * How far off the square round a place looks most like it on the other photo, by correlation, working px: none where a part is
 * gone, as its pads and its print hold the square where it was.
 */
export function movedPx(
  photo: Float32Array,
  other: Float32Array,
  w: number,
  h: number,
  x: number,
  y: number,
): number {
  let most = -1
  let moved = 0
  for (const [dx, dy] of REACH) {
    let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0]
    for (let v = Math.max(0, y - HALF, -dy); v <= Math.min(h - 1, y + HALF, h - 1 - dy); v++)
      for (let u = Math.max(0, x - HALF, -dx); u <= Math.min(w - 1, x + HALF, w - 1 - dx); u++) {
        const a = photo[v * w + u]!
        const b = other[(v + dy) * w + u + dx]!
        if (Number.isNaN(b)) continue
        n++
        sa += a
        sb += b
        saa += a * a
        sbb += b * b
        sab += a * b
      }
    if (n === 0) continue
    const [both, own, others] = [
      sab / n - (sa * sb) / n ** 2,
      saa / n - (sa / n) ** 2,
      sbb / n - (sb / n) ** 2,
    ]
    const alike = (both + GRAIN) / Math.sqrt((own + GRAIN) * (others + GRAIN))
    // As much alike nearer by: it did not move.
    if (alike > most + 1e-9) [most, moved] = [alike, Math.hypot(dx, dy)]
  }
  return moved
}
