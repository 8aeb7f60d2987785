import type { LightField } from './light-field'
import { sample } from '../../photo/grey-image'
import { onPlane } from './work'
import type { Work } from './work'
import { stripSeen } from './peaks'
import type { PeakPlaces } from './peaks'
import { project, scaleAt } from '../../photo/projection'
import type { Point, Projection } from '../../photo/projection'
import { fieldOf } from '../model/socket'
import { BEAM_RUN_MM } from '../damage/short'
import { median } from '../../maths/median'

export interface ToClaim extends Work {
  readonly projection: Projection
  readonly shift: LightField
  readonly grid: PeakPlaces
  /** Strength of a usual tip in the whole picture. */
  readonly strong: number
  /** Leans another photo gave, mm, in order of the contacts; then only a shift by height is looked for. */
  readonly known?: readonly (Point | null)[]
  /** How far the feet lie from where they are seen from straight above: they are lower than the tips, mm. */
  readonly feetMm?: Point
}

/** A tip this near its place is at home, mm. */
export const AT_HOME_MM = 0.1

/** Where the strip of a contact begins, in the working picture. */
export function footOf(work: ToClaim, i: number): Point {
  const c = work.socket.contacts[i]!
  const angle = (c.beamDeg * Math.PI) / 180
  const [dx, dy] = work.feetMm ?? [0, 0]
  const x = c.xMm - BEAM_RUN_MM * Math.cos(angle) + dx
  const y = c.yMm - BEAM_RUN_MM * Math.sin(angle) + dy
  return onPlane(work, project(work.projection, x, y))
}

/** How far the foot of a strip lies below its tip, mm (bench default). */
const FOOT_DEPTH_MM = 0.65
/** Greatest tilt that is believed; beyond it the picture is not from above. */
const MOST_TILT = 0.45

/**
 * How far the feet lie from where they would be seen from straight above, all alike, mm on the field: under a tilt θ
 * towards the eye a point lower by h is seen shifted by h · tan θ that way. The tilt is told by the field itself: it
 * is foreshortened by cos θ along the tilt, and larger on the side of the eye.
 */
export function feetOf({ projection, known, socket }: ToClaim): Point {
  if (known || socket.kind === 'pin-grid') return [0, 0]
  const [right, away] = [slope(projection, 1, 0), slope(projection, 0, 1)]
  const [a, b, c] = [dot(right, right), dot(right, away), dot(away, away)]
  const apart = Math.hypot((a - c) / 2, b)
  const [least, most] = [(a + c) / 2 - apart, (a + c) / 2 + apart]
  const tilt = Math.acos(Math.sqrt(Math.max(0, Math.min(1, least / most))))
  if (tilt > MOST_TILT || apart === 0) return [0, 0]
  // Along the lesser axis of the stretching.
  const angle = Math.atan2(2 * b, a - c) / 2 + Math.PI / 2
  const [x, y] = [Math.cos(angle), Math.sin(angle)]
  const nearer = scaleAt(projection, 5 * x, 5 * y) > scaleAt(projection, -5 * x, -5 * y) ? 1 : -1
  const shift = nearer * FOOT_DEPTH_MM * Math.tan(tilt)
  return [shift * x, shift * y]
}

const dot = (p: Point, q: Point) => p[0] * q[0] + p[1] * q[1]
/** Way in the photo for a way of one millimetre on the field, at its middle. */
function slope(p: Projection, x: number, y: number): Point {
  const [from, to] = [project(p, -x, -y), project(p, x, y)]
  return [(to[0] - from[0]) / 2, (to[1] - from[1]) / 2]
}

/** How plainly the strip of a tip at home shows, as a median over some hundred, grey levels over the tip's strength. */
export function healthyStrips(
  work: ToClaim,
  home: readonly Point[],
  claimed: Int32Array,
  scale: Float64Array,
): number {
  if (work.socket.kind === 'pin-grid') return 0
  const seen: number[] = []
  const step = Math.max(1, Math.floor(home.length / 400))
  for (let i = 0; i < home.length; i += step)
    if (claimed[i]! >= 0)
      seen.push(
        stripSeen(work.plane, footOf(work, i), home[i]!, 0.2 * scale[i]!) /
          work.grid.peaks.strength[claimed[i]!]!,
      )
  return Math.max(0, median(seen))
}

/** Least share of a usual strip's contrast that is a strip. */
const STRIP_SEEN = 0.5
/** Shortest strip that is taken for a beam with its tip somewhere else, mm; a stub without its tip is shorter. */
const LEAST_STRIP_MM = 0.5

/**
 * Where a contact without a spot has gone, if a strip of metal runs plainly from its foot to somewhere: of 48 directions
 * the one with the longest plain strip, ended where it fades or where a neighbour's tip begins.
 */
export function liesOver(
  work: ToClaim,
  i: number,
  claimed: Int32Array,
  scale: number,
  strip: number,
): { readonly contact: string | null; readonly at: Point } | null {
  const { socket, grid, plane } = work
  if (strip <= 0) return null
  const c = socket.contacts[i]!
  const foot = footOf(work, i)
  const tips = fieldOf(socket)
    .near.within(c.xMm, c.yMm, 2.2 * socket.pitchMm)
    .flatMap((k) =>
      claimed[k]! < 0 || k === i
        ? []
        : [
            {
              name: socket.contacts[k]!.name,
              at: [grid.peaks.x[claimed[k]!]!, grid.peaks.y[claimed[k]!]!] as Point,
            },
          ],
    )
  const step = 0.05 * scale
  let best: { contact: string | null; at: Point } | null = null
  let most = 0
  for (let turn = 0; turn < 48; turn++) {
    const [ux, uy] = [Math.cos((turn * Math.PI) / 24), Math.sin((turn * Math.PI) / 24)]
    let sum = 0
    let r = 0.15 * scale
    let met: string | null = null
    let [last, before] = [strip, strip]
    for (; r < 1.6 * socket.pitchMm * scale && met === null; r += step) {
      const [x, y] = [foot[0] + ux * r, foot[1] + uy * r]
      met = tips.find((t) => Math.hypot(t.at[0] - x, t.at[1] - y) < 0.19 * scale)?.name ?? null
      const beside = 0.19 * scale
      const seen =
        sample(plane, x, y) -
        (sample(plane, x - uy * beside, y + ux * beside) + sample(plane, x + uy * beside, y - ux * beside)) /
          2
      // Over three steps, so that a grain of noise does not end it.
      if (seen + last + before < 3 * STRIP_SEEN * strip && met === null) break
      ;[before, last] = [last, seen]
      sum += Math.min(seen, 1.5 * strip)
    }
    if (r < LEAST_STRIP_MM * scale || sum <= most) continue
    most = sum
    const end = r - 0.05 * scale
    best = { contact: met, at: [foot[0] + ux * end, foot[1] + uy * end] }
  }
  return best
}

/** Where a spot lies by a contact's own strip; null at home, and for a pin, which has no strip. */
export function overItsStrip(
  home: Point,
  foot: Point,
  at: Point,
  scale: number,
): 'beside' | 'strip' | 'foot' | null {
  const [bx, by] = [foot[0] - home[0], foot[1] - home[1]]
  const [dx, dy] = [at[0] - home[0], at[1] - home[1]]
  const far = Math.hypot(bx, by)
  if (far < 1 || Math.hypot(dx, dy) < AT_HOME_MM * scale) return null
  const back = (dx * bx + dy * by) / far
  const beside = Math.abs(dx * by - dy * bx) / far
  if (back < 0.12 * scale || back > far + 0.15 * scale || beside > 0.16 * scale) return 'beside'
  return back > far - 0.13 * scale ? 'foot' : 'strip'
}
