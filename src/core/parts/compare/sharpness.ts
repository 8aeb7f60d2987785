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
  let best = sharper.green
  let softer = 0
  // Softer is blunter: the most that is still as sharp lies between these two.
  let [from, before]: [number, number] = [0, SOFTER.length]
  while (from < before) {
    const middle = (from + before) >> 1
    const green = soft(sharper.green, blunt.green, sharper, SOFTER[middle]!)
    if (sharpness(green, blunt.green, sharper) < to) before = middle
    else {
      from = middle + 1
      best = green
      softer = SOFTER[middle]!
    }
  }
  if (softer === 0) return sharper
  return {
    ...sharper,
    red: soft(sharper.red, blunt.red, sharper, softer),
    green: best,
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
  const whole = Float32Array.from(values)
  for (let at = 0; at < whole.length; at++) if (Number.isNaN(whole[at]!)) whole[at] = lent[at]! || 0
  const softer = blur({ widthPx, heightPx, values: whole }, sigma).values
  for (let at = 0; at < softer.length; at++) if (Number.isNaN(values[at]!)) softer[at] = NaN
  return softer
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
