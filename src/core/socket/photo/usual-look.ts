import { median } from '../../maths/median'
import { fieldOf } from '../model/socket'
import { sample } from '../../photo/grey-image'
import type { Point } from '../../photo/projection'
import { footOf } from './strip'
import type { ToClaim } from './strip'

/** Brightness within a circle, mean. */
export function meanRound({ plane }: ToClaim, [x, y]: Point, radiusPx: number): number {
  let sum = 0
  let n = 0
  for (let dy = -radiusPx; dy <= radiusPx; dy += 1)
    for (let dx = -radiusPx; dx <= radiusPx; dx += 1)
      if (dx * dx + dy * dy <= radiusPx * radiusPx) {
        sum += sample(plane, x + dx, y + dy)
        n++
      }
  return sum / n
}

/** What contacts at home look like round each contact: the light differs from one side of the field to the other. */
export interface Usual {
  /** Strength of the tip's spot. */
  readonly gain: Float64Array
  /** Brightness of the tip, of all round it, of the strip half-way, and of the housing beside it. */
  readonly tip: Float64Array
  readonly round: Float64Array
  readonly strip: Float64Array
  readonly ground: Float64Array
}

/** Radii within which a tip, and all that covers a place, is looked at, mm. */
const TIP_ROUND_MM = 0.05
export const COVER_MM = 0.13

/** Medians over the contacts at home within three pitches of each contact; over the whole field where there are few. */
export function usualRound(
  work: ToClaim,
  home: readonly Point[],
  claimed: Int32Array,
  scale: Float64Array,
): Usual {
  const { socket, grid } = work
  const { near } = fieldOf(socket)
  const around = socket.contacts.map((c) =>
    near.within(c.xMm, c.yMm, socket.pitchMm * 3.1).filter((k) => claimed[k]! >= 0),
  )
  const medians = (of: (i: number) => number, usual?: number): Float64Array => {
    const seen = Float64Array.from(claimed, (peak, i) => (peak < 0 ? NaN : of(i)))
    const whole = usual ?? median([...seen].filter((v) => !Number.isNaN(v)))
    return Float64Array.from(around, (ks) => (ks.length < 4 ? whole : median(ks.map((k) => seen[k]!))))
  }
  return {
    gain: medians((i) => grid.peaks.strength[claimed[i]!]!, work.strong),
    tip: medians((i) =>
      meanRound(work, [grid.peaks.x[claimed[i]!]!, grid.peaks.y[claimed[i]!]!], TIP_ROUND_MM * scale[i]!),
    ),
    round: medians((i) => meanRound(work, home[i]!, COVER_MM * scale[i]!)),
    strip: medians((i) => {
      const [x, y] = home[i]!
      const foot = footOf(work, i)
      return meanRound(work, [(x + foot[0]) / 2, (y + foot[1]) / 2], TIP_ROUND_MM * scale[i]!)
    }),
    ground: medians((i) => {
      const [x, y] = home[i]!
      const far = 0.5 * socket.pitchMm * scale[i]!
      const sides = [
        [far, far],
        [-far, far],
        [far, -far],
        [-far, -far],
      ].map(([dx, dy]) => meanRound(work, [x + dx!, y + dy!], TIP_ROUND_MM * scale[i]!))
      return Math.min(...sides)
    }),
  }
}

/**
 * Least share of the way from a strip's to a tip's brightness at which a spot is a tip: beside the contact's own strip,
 * over it (where its end lies if it broke off), and over its foot.
 */
export const LIKE_A_TIP = { beside: 0.25, strip: 0.55, foot: 0.65 }

/** How far a spot's brightness is from a strip's (0) to a tip's (1), as they are round it. */
export function likeATip(work: ToClaim, i: number, at: Point, scale: number, usual: Usual): number {
  const bright = meanRound(work, at, TIP_ROUND_MM * scale)
  return (bright - usual.strip[i]!) / Math.max(1, usual.tip[i]! - usual.strip[i]!)
}
