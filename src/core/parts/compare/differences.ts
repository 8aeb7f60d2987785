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
/** Steps of a level that ratios are looked up by, and how far up. */
const STEPS = 32
const BY_RATIO = Float32Array.from(
  { length: 512 * STEPS },
  (_, i) => (255 * Math.log((i / STEPS + DARK) / DARK)) / Math.log((255 + DARK) / DARK),
)
/** As the eye sees it: by ratios rather than steps, so that a glint is no larger than a part; again 0 to 255. */
export const byRatio = (of: ColourPlanes): ColourPlanes =>
  each(of, (values) => {
    const out = new Float32Array(values.length)
    for (let at = 0; at < out.length; at++) {
      const step = STEPS * values[at]! + 0.5
      out[at] =
        step < BY_RATIO.length ? BY_RATIO[step < 0 ? 0 : step | 0]! : step === step ? BY_RATIO.at(-1)! : NaN
    }
    return out
  })
