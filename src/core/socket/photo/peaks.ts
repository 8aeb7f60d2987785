import { Places } from '../../maths/places'
import { blur, sample } from '../../photo/grey-image'
import type { Plane } from '../../photo/grey-image'

/** Spots of the size of a tip: where, and how much brighter than what is round them. */
export interface Peaks {
  readonly x: Float64Array
  readonly y: Float64Array
  readonly strength: Float64Array
}

/**
 * Response to a spot of radius r: the difference of two Gaussians, σ = 0.6 r and 1.2 r, which is zero on even ground
 * and on a slope of light, and greatest at the middle of a spot of that size.
 * Source: Marr & Hildreth (1980).
 */
export function spotResponse(plane: Plane, radiusPx: number): Plane {
  const fine = blur(plane, 0.6 * radiusPx)
  const coarse = blur(fine, Math.sqrt(1.2 ** 2 - 0.6 ** 2) * radiusPx)
  const values = fine.values
  for (let i = 0; i < values.length; i++) values[i]! -= coarse.values[i]!
  return fine
}

/** Greatest responses of their 3 × 3 surroundings above a floor, each to a fraction of a pixel by parabolas. */
export function peaksOf(response: Plane, floor: number): Peaks {
  const { widthPx: w, heightPx: h, values: v } = response
  const x: number[] = []
  const y: number[] = []
  const strength: number[] = []
  for (let row = 1; row < h - 1; row++)
    for (let col = 1; col < w - 1; col++) {
      const i = row * w + col
      const here = v[i]!
      if (here < floor || here <= v[i - 1]! || here < v[i + 1]! || here <= v[i - w]! || here < v[i + w]!)
        continue
      if (here <= v[i - w - 1]! || here <= v[i - w + 1]! || here < v[i + w - 1]! || here < v[i + w + 1]!)
        continue
      const bendX = v[i - 1]! - 2 * here + v[i + 1]!
      const bendY = v[i - w]! - 2 * here + v[i + w]!
      x.push(col + (bendX < 0 ? (0.5 * (v[i - 1]! - v[i + 1]!)) / bendX : 0))
      y.push(row + (bendY < 0 ? (0.5 * (v[i - w]! - v[i + w]!)) / bendY : 0))
      strength.push(here)
    }
  return { x: Float64Array.from(x), y: Float64Array.from(y), strength: Float64Array.from(strength) }
}

/** Peaks by where they are. */
export class PeakPlaces extends Places {
  constructor(readonly peaks: Peaks) {
    super(peaks.x, peaks.y)
  }
}

/**
 * How much a strip of metal is to be seen from foot to tip: brightness along the middle of the way less that on either
 * side of it, grey levels.
 */
export function stripSeen(
  plane: Plane,
  foot: readonly [number, number],
  tip: readonly [number, number],
  besidePx: number,
): number {
  const [dx, dy] = [tip[0] - foot[0], tip[1] - foot[1]]
  const far = Math.hypot(dx, dy)
  if (far < 1) return 0
  const [nx, ny] = [(-dy / far) * besidePx, (dx / far) * besidePx]
  let sum = 0
  let n = 0
  for (let t = 0.2; t < 0.71; t += 0.1) {
    const [x, y] = [foot[0] + dx * t, foot[1] + dy * t]
    sum += sample(plane, x, y) - (sample(plane, x + nx, y + ny) + sample(plane, x - nx, y - ny)) / 2
    n++
  }
  return sum / n
}
