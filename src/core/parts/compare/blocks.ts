import { differenceOf } from './pair'
import { placesRound } from './nearby'
import type { PhotoPair } from './pair'

/** Twice this difference or more counts as that, levels: a glint is no part. */
const MOST = 60

/** What blocks of a photo differ by from the other one at its best fit nearby, one block every few pixels. */
export interface Unlike {
  readonly columns: number
  readonly rows: number
  readonly stepPx: number
  /** Mean difference over the block, levels; not a number where the other photo shows nothing. */
  readonly by: Float32Array
  /** How much there is to see in the block, levels. */
  readonly contrast: Float32Array
}

/**
 * Compares block by block: the least mean difference, colours and grey, over all shifts up to `reach`.
 * What stands up from the board is seen shifted; what is gone fits nowhere.
 * @param sidePx side of a block
 */
export function unlike(
  pair: PhotoPair,
  { sidePx, stepPx, reachPx, flat }: { sidePx: number; stepPx: number; reachPx: number; flat: number },
): Unlike {
  const { photo, other } = pair
  // An imported name is looked up at every call.
  const difference = differenceOf
  const { widthPx: w, heightPx: h } = photo
  const columns = Math.floor((w - 1) / stepPx) + 1
  const rows = Math.floor((h - 1) / stepPx) + 1
  const by = new Float32Array(columns * rows).fill(NaN)
  const contrast = new Float32Array(columns * rows)
  const half = sidePx >> 1
  const edge = half + reachPx
  const shifts = placesRound(reachPx)
  const n = sidePx * sidePx
  /** Sum of differences of a block against the other photo shifted, as far as it matters. */
  const differ = (x0: number, y0: number, sx: number, sy: number, enough: number): number => {
    let sum = 0
    for (let y = 0; y < sidePx; y++) {
      let p = (y0 + y) * w + x0
      let q = (y0 + y + sy) * w + x0 + sx
      for (let x = 0; x < sidePx; x++, p++, q++) {
        const d = difference(pair, p, q)
        sum += d < 2 * MOST ? d : 2 * MOST
      }
      if (sum >= enough) return Infinity
    }
    return sum
  }
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [cx, cy] = [column * stepPx, row * stepPx]
      if (cx < edge || cy < edge || cx >= w - edge || cy >= h - edge) continue
      const at = row * columns + column
      const [x0, y0] = [cx - half, cy - half]
      if (!shows(other.red, w, cx, cy, edge)) continue
      contrast[at] = Math.max(
        spreadOf(photo.green, w, x0, y0, sidePx),
        spreadOf(other.green, w, x0, y0, sidePx),
      )
      let best = Infinity
      for (const [sx, sy] of shifts) {
        const sum = differ(x0, y0, sx, sy, best)
        if (sum < best) {
          best = sum
          if (sum < flat * n) break
        }
      }
      by[at] = best / n
    }
  return { columns, rows, stepPx, by, contrast }
}

/** Whether the other photo shows all of a field: by its corners, as what it shows has straight edges. */
const shows = (values: Float32Array, w: number, x: number, y: number, edge: number): boolean =>
  [-edge, edge].every((dy) => [-edge, edge].every((dx) => !Number.isNaN(values[(y + dy) * w + x + dx]!)))

function spreadOf(values: Float32Array, w: number, x0: number, y0: number, side: number): number {
  let [sum, square] = [0, 0]
  for (let y = 0; y < side; y++)
    for (let x = 0, p = (y0 + y) * w + x0; x < side; x++, p++) {
      const v = values[p]!
      sum += v
      square += v * v
    }
  const n = side * side
  const spread = Math.sqrt(Math.max(0, square / n - (sum / n) ** 2))
  return spread === spread ? spread : 0
}
