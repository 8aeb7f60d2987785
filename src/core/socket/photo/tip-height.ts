import { lightField } from './light-field'
import type { Located } from './locate'
import type { Socket } from '../model/socket'
import type { Point } from '../../photo/projection'

/** From which side a second photo was taken. */
export interface Tilt {
  /** Away from straight above, degrees; 30 at least. */
  readonly tiltDeg: number
  /** The side the eye leans to, degrees anticlockwise from +x of the field. */
  readonly towardsDeg: number
}

export interface TipHeight {
  readonly name: string
  /** Above (+) or below (−) the tips round it, mm. */
  readonly heightMm: number
  readonly sigmaMm: number
}

/** Least tilt at which a height can be told, degrees. */
export const LEAST_TILT_DEG = 30

/**
 * Heights from a second photo at a known tilt: a tip that stands Δh above the others is seen shifted by Δh·tan θ away
 * from the eye, on top of its own lean, which the first photo gives: Δh = parallax / tan θ.
 * The parallax is taken against the smooth shift of all tips, so that a field that is seen a little askew stays level.
 * @throws RangeError if the tilt is less than 30° or 75° and more
 * Source: parallax of a raised point, any text of photogrammetry.
 */
export function tipHeights(socket: Socket, above: Located, tilted: Located, tilt: Tilt): TipHeight[] {
  if (!(tilt.tiltDeg >= LEAST_TILT_DEG && tilt.tiltDeg < 75))
    throw new RangeError(`the tilt must lie between ${LEAST_TILT_DEG}° and 75°, got ${tilt.tiltDeg}°`)
  const angle = (tilt.towardsDeg * Math.PI) / 180
  const away: Point = [-Math.cos(angle), -Math.sin(angle)]
  const tan = Math.tan((tilt.tiltDeg * Math.PI) / 180)
  const both = socket.contacts.flatMap((c, i) => {
    const [first, second] = [above.tips[i], tilted.tips[i]]
    const [a, b] = [first?.offsetMm, second?.offsetMm]
    // Where only a strip was seen, the end of it is no tip whose height could be told.
    if (!a || !b || first?.shine === 0 || second?.as === 'ambiguous') return []
    const offMm: Point = [b[0] - a[0], b[1] - a[1]]
    return [{ name: c.name, mm: [c.xMm, c.yMm] as const, beamDeg: c.beamDeg, offMm }]
  })
  const { at } = lightField(both)
  const sigmaMm = Math.hypot(above.spreadMm, tilted.spreadMm) / tan
  return both.map(({ name, mm, beamDeg, offMm }) => {
    const [sx, sy] = at(mm, beamDeg)
    return { name, heightMm: ((offMm[0] - sx) * away[0] + (offMm[1] - sy) * away[1]) / tan, sigmaMm }
  })
}
