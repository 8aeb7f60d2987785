import { blur } from '../../photo/grey-image'
import { lay, onWorked } from '../../photo/overlay'
import type { Overlay } from '../../photo/overlay'

/** A photo in colours, in working size. */
export interface ColourPlanes {
  readonly widthPx: number
  readonly heightPx: number
  readonly factor: number
  readonly red: Float32Array
  readonly green: Float32Array
  readonly blue: Float32Array
}

/** Shrinks a photo (red, green, blue, alpha) by a whole factor, each new pixel the mean of factor² old ones. */
export function coloursOf(
  rgba: Uint8Array | Uint8ClampedArray,
  fullWidthPx: number,
  fullHeightPx: number,
  factor: number,
): ColourPlanes {
  const widthPx = Math.floor(fullWidthPx / factor)
  const heightPx = Math.floor(fullHeightPx / factor)
  const plane = () => new Float32Array(widthPx * heightPx)
  const [red, green, blue] = [plane(), plane(), plane()]
  const share = 1 / (factor * factor)
  for (let y = 0; y < heightPx * factor; y++) {
    const to = Math.floor(y / factor) * widthPx
    let from = 4 * y * fullWidthPx
    for (let x = 0; x < widthPx; x++)
      for (let k = 0; k < factor; k++, from += 4) {
        red[to + x]! += rgba[from]! * share
        green[to + x]! += rgba[from + 1]! * share
        blue[to + x]! += rgba[from + 2]! * share
      }
  }
  return { widthPx, heightPx, factor, red, green, blue }
}

/** The other photo as it is seen from where the photo was taken: what lies outside of it is not a number. */
export function laidOver(photo: ColourPlanes, other: ColourPlanes, overlay: Overlay): ColourPlanes {
  const { widthPx, heightPx, factor } = photo
  const plane = () => new Float32Array(widthPx * heightPx).fill(NaN)
  const [red, green, blue] = [plane(), plane(), plane()]
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) {
      const [u, v] = onWorked(other, lay(overlay, (x + 0.5) * factor - 0.5, (y + 0.5) * factor - 0.5))
      if (!(u >= 0 && v >= 0 && u < other.widthPx - 1 && v < other.heightPx - 1)) continue
      const [ix, iy] = [u | 0, v | 0]
      const [fx, fy] = [u - ix, v - iy]
      const k = iy * other.widthPx + ix
      const [a, b, c, d] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy]
      const at = y * widthPx + x
      const [r, g, bl, w] = [other.red, other.green, other.blue, other.widthPx]
      red[at] = a * r[k]! + b * r[k + 1]! + c * r[k + w]! + d * r[k + w + 1]!
      green[at] = a * g[k]! + b * g[k + 1]! + c * g[k + w]! + d * g[k + w + 1]!
      blue[at] = a * bl[k]! + b * bl[k + 1]! + c * bl[k + w]! + d * bl[k + w + 1]!
    }
  return { widthPx, heightPx, factor, red, green, blue }
}

/** From one field whose light is measured to the next, of their reach; and every how many pixels it is taken. */
const FIELDS = 2
const EVERY = 4
/** Spread of what is read where nothing differs, levels: light is not told by less. */
const GRAIN = 8
/** How far light is believed to differ. */
const MOST_GAIN = 3

/**
 * Brings the light of one photo to that of the other, colour by colour, field by field: b ≈ gain·a + veil over all that both
 * show, what differs being weighed down (biweight), so that neither glare nor shade is taken for a difference.
 * @param reachPx half the side of a field
 */
export function evened(from: ColourPlanes, to: ColourPlanes, reachPx: number): ColourPlanes {
  const { widthPx: w, heightPx: h } = from
  const step = Math.max(4, Math.floor(reachPx / FIELDS))
  const [columns, rows] = [Math.ceil(w / step) + 1, Math.ceil(h / step) + 1]
  const most = (Math.ceil((2 * reachPx) / EVERY) + 1) ** 2
  const [some, other] = [new Float64Array(most), new Float64Array(most)]
  const weights = new Float64Array(most)
  const one = (a: Float32Array, b: Float32Array): Float32Array => {
    const gain = new Float32Array(columns * rows).fill(1)
    const veil = new Float32Array(columns * rows)
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        const [cx, cy] = [column * step, row * step]
        let n = 0
        for (let y = Math.max(0, cy - reachPx); y < Math.min(h, cy + reachPx); y += EVERY)
          for (let x = Math.max(0, cx - reachPx); x < Math.min(w, cx + reachPx); x += EVERY) {
            const at = y * w + x
            if (Number.isNaN(a[at]!)) continue
            some[n] = a[at]!
            other[n] = b[at]!
            n++
          }
        if (n < 20) continue
        const line = lineThrough(some, other, weights, n)
        gain[row * columns + column] = line.gain
        veil[row * columns + column] = line.veil
      }
    const out = new Float32Array(w * h)
    for (let y = 0; y < h; y++) {
      const row = Math.floor(y / step)
      const v = y / step - row
      for (let x = 0; x < w; x++) {
        const column = Math.floor(x / step)
        const u = x / step - column
        const k = row * columns + column
        const [p, q, r, s] = [(1 - u) * (1 - v), u * (1 - v), (1 - u) * v, u * v]
        const [below, right] = [k + columns, k + 1]
        const grows = p * gain[k]! + q * gain[right]! + r * gain[below]! + s * gain[below + 1]!
        const lies = p * veil[k]! + q * veil[right]! + r * veil[below]! + s * veil[below + 1]!
        out[y * w + x] = a[y * w + x]! * grows + lies
      }
    }
    return out
  }
  return {
    ...from,
    red: one(from.red, to.red),
    green: one(from.green, to.green),
    blue: one(from.blue, to.blue),
  }
}

/** The line b = gain·a + veil through the first n pairs, those far off it weighed down; where there is little to see, gain 1. */
function lineThrough(
  a: Float64Array,
  b: Float64Array,
  weights: Float64Array,
  n: number,
): { gain: number; veil: number } {
  weights.fill(1, 0, n)
  let [gain, veil] = [1, 0]
  for (let round = 0; round < 4; round++) {
    let [sum, ma, mb] = [0, 0, 0]
    for (let i = 0; i < n; i++) {
      sum += weights[i]!
      ma += weights[i]! * a[i]!
      mb += weights[i]! * b[i]!
    }
    ma /= sum || 1
    mb /= sum || 1
    let [da, db] = [0, 0]
    for (let i = 0; i < n; i++) {
      da += weights[i]! * (a[i]! - ma) ** 2
      db += weights[i]! * (b[i]! - mb) ** 2
    }
    const grain = sum * GRAIN * GRAIN * 0.25
    // Of the two spreads, as both have their noise: a regression of one on the other would flatten it.
    gain = Math.min(MOST_GAIN, Math.max(1 / MOST_GAIN, Math.sqrt((db + grain) / (da + grain))))
    veil = mb - gain * ma
    let spread = 0
    for (let i = 0; i < n; i++) spread += weights[i]! * Math.abs(b[i]! - gain * a[i]! - veil)
    const wide = 3 * Math.max(GRAIN / 2, (1.25 * spread) / (sum || 1))
    for (let i = 0; i < n; i++) {
      const u = (b[i]! - gain * a[i]! - veil) / wide
      weights[i] = u * u < 1 ? (1 - u * u) ** 2 : 0
    }
  }
  return { gain, veil }
}

const each = (of: ColourPlanes, work: (values: Float32Array) => Float32Array): ColourPlanes => ({
  ...of,
  red: work(of.red),
  green: work(of.green),
  blue: work(of.blue),
})

/** A little out of focus, so that grain and a tenth of a pixel are no difference. */
export const softened = (of: ColourPlanes, sigmaPx: number): ColourPlanes =>
  each(of, (values) => blur({ widthPx: of.widthPx, heightPx: of.heightPx, values }, sigmaPx).values)

/** Brightness that counts as none, levels: below it is the sensor’s noise. */
const DARK = 25
/** As the eye sees it: by ratios rather than steps, so that a glint is no larger than a part; again 0 to 255. */
export const byRatio = (of: ColourPlanes): ColourPlanes =>
  each(of, (values) =>
    values.map((v) => (255 * Math.log((Math.max(0, v) + DARK) / DARK)) / Math.log((255 + DARK) / DARK)),
  )
