import type { Cluster } from './clusters'
import type { ColourPlanes } from './differences'
import { differenceAt, MOST } from './differences'

/** Where what is seen at a place of one photo is seen in the other one, away from where it should be. */
export interface Elsewhere {
  /** How far, working px. */
  readonly dx: number
  readonly dy: number
  /** Mean difference there, levels. */
  readonly by: number
}

/** What is taken along round a cluster, working px. */
const MARGIN = 4

/**
 * Looks for what is seen at a cluster nearby in the other photo: what stands up from the board is seen shifted against it, and
 * so is a part that sits beside its pads. Pixels are taken every second way at first, every one round the best.
 * @param reach how far, working px
 */
export function elsewhere(
  from: ColourPlanes,
  to: ColourPlanes,
  { x0, y0, x1, y1 }: Cluster,
  reach: number,
): Elsewhere | null {
  const { widthPx: w, heightPx: h } = from
  const [left, top] = [Math.max(0, x0 - MARGIN), Math.max(0, y0 - MARGIN)]
  const [right, bottom] = [Math.min(w - 1, x1 + MARGIN), Math.min(h - 1, y1 + MARGIN)]
  const differ = (sx: number, sy: number, step: number, enough: number): number => {
    if (left + sx < 0 || top + sy < 0 || right + sx >= w || bottom + sy >= h) return Infinity
    let [sum, n] = [0, 0]
    const whole = Math.ceil((right - left + 1) / step) * Math.ceil((bottom - top + 1) / step)
    for (let y = top; y <= bottom; y += step) {
      for (let x = left; x <= right; x += step) {
        const p = y * w + x
        const q = p + sy * w + sx
        const d = differenceAt(from, p, to, q)
        if (d !== d) return Infinity
        sum += d < 2 * MOST ? d : 2 * MOST
        n++
      }
      if (sum > enough * whole) return Infinity
    }
    return sum / n
  }
  let best: Elsewhere = { dx: 0, dy: 0, by: Infinity }
  const look = (sx: number, sy: number, step: number) => {
    const by = differ(sx, sy, step, best.by)
    if (by < best.by) best = { dx: sx, dy: sy, by }
  }
  for (let sy = -reach; sy <= reach; sy += 2)
    for (let sx = -reach; sx <= reach; sx += 2) if (sx * sx + sy * sy <= reach * reach) look(sx, sy, 2)
  const { dx, dy } = best
  best = { dx, dy, by: differ(dx, dy, 1, Infinity) }
  for (let sy = dy - 2; sy <= dy + 2; sy++) for (let sx = dx - 2; sx <= dx + 2; sx++) look(sx, sy, 1)
  return best.by < Infinity ? best : null
}
