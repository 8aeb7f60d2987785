import { blur } from '../../photo/grey-image'
import type { ColourPlanes } from './differences'

/** How far the sharper photo is put out of focus at most, and in which steps, working px. */
const SOFTER = [0.4, 0.6, 0.8, 1, 1.2, 1.5] as const

/** Two photos as sharp as the blunter of them: what focus does is no difference. What is not a number stays so. */
export function asSharp(photo: ColourPlanes, other: ColourPlanes): readonly [ColourPlanes, ColourPlanes] {
  const [own, others] = [
    sharpness(photo.green, other.green, photo),
    sharpness(other.green, photo.green, photo),
  ]
  return own > others ? [softerTo(photo, other, others), other] : [photo, softerTo(other, photo, own)]
}

/** The sharper photo as blunt as it is told, where both show something. */
function softerTo(sharper: ColourPlanes, blunt: ColourPlanes, to: number): ColourPlanes {
  let softer = 0
  for (const sigma of SOFTER) {
    const green = soft(sharper.green, blunt.green, sharper, sigma)
    if (sharpness(green, blunt.green, sharper) < to) break
    softer = sigma
  }
  if (softer === 0) return sharper
  return {
    ...sharper,
    red: soft(sharper.red, blunt.red, sharper, softer),
    green: soft(sharper.green, blunt.green, sharper, softer),
    blue: soft(sharper.blue, blunt.blue, sharper, softer),
  }
}

/** Out of focus by so much; where it shows nothing, the other one lends what is needed for it. */
function soft(
  values: Float32Array,
  lent: Float32Array,
  { widthPx, heightPx }: ColourPlanes,
  sigma: number,
): Float32Array {
  const whole = values.map((v, at) => (Number.isNaN(v) ? (Number.isNaN(lent[at]!) ? 0 : lent[at]!) : v))
  const softer = blur({ widthPx, heightPx, values: whole }, sigma).values
  return softer.map((v, at) => (Number.isNaN(values[at]!) ? NaN : v))
}

/**
 * How steep edges are, whatever their height: squares of steps over two pixels by those over eight, of what both photos show.
 */
function sharpness(
  values: Float32Array,
  seen: Float32Array,
  { widthPx: w, heightPx: h }: ColourPlanes,
): number {
  let [near, far] = [0, 0]
  for (let y = 0; y < h; y += 2)
    for (let x = 4; x < w - 4; x += 2) {
      const at = y * w + x
      const step = values[at + 1]! - values[at - 1]!
      const stride = values[at + 4]! - values[at - 4]!
      if (Number.isNaN(stride) || Number.isNaN(step) || Number.isNaN(seen[at - 4]! + seen[at + 4]!)) continue
      near += step * step
      far += stride * stride
    }
  return far === 0 ? 0 : near / far
}
