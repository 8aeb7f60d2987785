import { isDamage, usualHeightMm } from '../damage/mark'
import type { Mark, Marks } from '../damage/mark'
import { fieldOf } from '../model/socket'
import type { Socket } from '../model/socket'

export const corners = ['far left', 'far right', 'near right', 'near left'] as const
export type Corner = (typeof corners)[number]

/** How a CPU goes in: an even light push is what a pin grid may want, a land grid never. */
export const drops = ['flat', 'light push', 'proud', 'needed force'] as const
export type Drop = (typeof drops)[number]

/** How a CPU went in. */
export interface Seating {
  readonly drop: Drop
  readonly corner?: Corner
  /** Its mark and the socket's did not meet. */
  readonly turned?: boolean
}

export const seatCauses = [
  'CPU turned',
  'something lodged',
  'a contact stands high',
  'bent field',
  'warped housing',
  'pin out of line',
  'well seated',
] as const
export type SeatCause = (typeof seatCauses)[number]

export interface SeatReading {
  readonly cause: SeatCause
  readonly odds: number
  /** Contacts that speak for it. */
  readonly contacts: readonly string[]
  /** What would settle it. */
  readonly look: string
}

/** How often each is behind a CPU that does not lie flat, before anything is known (bench default). */
const usual: Readonly<Record<SeatCause, number>> = {
  'CPU turned': 0.06,
  'something lodged': 0.22,
  'a contact stands high': 0.3,
  'bent field': 0.12,
  'warped housing': 0.08,
  'pin out of line': 0,
  'well seated': 0.22,
}
/** How likely each shows as a CPU that falls flat, stays proud at a corner, or needs force (bench default). */
const shows: Readonly<Record<SeatCause, readonly [flat: number, proud: number, force: number]>> = {
  'CPU turned': [0.02, 0.6, 0.38],
  'something lodged': [0.1, 0.75, 0.15],
  'a contact stands high': [0.25, 0.55, 0.2],
  'bent field': [0.3, 0.3, 0.4],
  'warped housing': [0.25, 0.55, 0.2],
  'pin out of line': [0.03, 0.37, 0.6],
  'well seated': [0.97, 0.02, 0.01],
}
const looks: Readonly<Record<SeatCause, string>> = {
  'CPU turned': 'lift it out and put its mark to the mark of the socket',
  'something lodged': 'light from low at that corner; look between the contacts and under the frame',
  'a contact stands high': 'look along the rows from the side at that corner: what stands above the others',
  'bent field': 'photograph it from the side: heights over the whole field',
  'warped housing': 'lay a straight edge over the housing, corner to corner, light behind it',
  'pin out of line': 'find the pins that bind with the best fit and ease them',
  'well seated': 'nothing more to look for',
}

/** The corner of the field a place lies in. */
export const cornerOf = (xMm: number, yMm: number): Corner =>
  `${yMm >= 0 ? 'far' : 'near'} ${xMm < 0 ? 'left' : 'right'}` as Corner

/**
 * What keeps a CPU from falling flat: Bayes over seven causes from how it went in, joined with what the map says of
 * heights: high or lodged contacts at that corner speak for themselves, a slope of the measured heights over the field
 * (least squares) for a warped housing, many off level without a slope for a bent field.
 */
export function readSeating(socket: Socket, marks: Marks, seating: Seating): SeatReading[] {
  const pins = socket.kind === 'pin-grid'
  const here = (name: string) => {
    const c = fieldOf(socket).named.get(name)
    return c !== undefined && (seating.corner === undefined || cornerOf(c.xMm, c.yMm) === seating.corner)
  }
  const named = Object.entries(marks).filter(([name, mark]) => isDamage(mark) && here(name))
  const of = (fits: (mark: Mark) => boolean) => named.filter(([, mark]) => fits(mark)).map(([name]) => name)
  const lodged = of((m) => m.kind === 'lodged' || m.kind === 'folded')
  const high = of((m) => m.kind === 'high' || usualHeightMm(m) > 0.05)
  const low = of((m) => usualHeightMm(m) < -0.05)
  const bent = of((m) => m.kind === 'lean' || m.kind === 'folded' || m.kind === 'touching')
  const slope = slopeOf(socket, marks)
  const speaks: Readonly<
    Record<SeatCause, { readonly weight: number; readonly contacts: readonly string[] }>
  > = {
    'CPU turned': {
      weight: seating.turned === true ? 200 : seating.turned === false ? 0.02 : 1,
      contacts: [],
    },
    'something lodged': { weight: lodged.length > 0 ? 14 : 0.8, contacts: lodged },
    'a contact stands high': { weight: high.length > 0 ? 8 : 0.7, contacts: high },
    'bent field': {
      weight: low.length + high.length >= 8 && slope < 0.004 ? 8 : 0.8,
      contacts: low.slice(0, 12),
    },
    'warped housing': { weight: slope >= 0.004 ? 20 : 0.8, contacts: [] },
    'pin out of line': { weight: pins ? (bent.length > 0 ? 40 : 8) : 0, contacts: bent },
    'well seated': { weight: named.length === 0 ? 1.3 : 0.8, contacts: [] },
  }
  const outcome = seating.drop === 'flat' ? 0 : seating.drop === 'proud' ? 1 : 2 // a light push is a force
  const weighed = seatCauses.map((cause) => ({
    cause,
    weight:
      (pins && cause === 'pin out of line' ? 0.3 : usual[cause]) *
      shows[cause][outcome]! *
      speaks[cause].weight,
  }))
  const sum = weighed.reduce((a, b) => a + b.weight, 0)
  return weighed
    .map(({ cause, weight }) => ({
      cause,
      odds: weight / sum,
      contacts: speaks[cause].contacts,
      look: looks[cause],
    }))
    .filter((r) => r.odds > 0.005)
    .sort((a, b) => b.odds - a.odds)
}

/** Steepness of the measured heights over the field, mm per mm; 0 with fewer than six of them. */
export function slopeOf(socket: Socket, marks: Marks): number {
  const { named } = fieldOf(socket)
  const heights = Object.entries(marks).flatMap(([name, mark]) => {
    const c = named.get(name)
    return c && mark.heightMm !== undefined ? [[c.xMm, c.yMm, mark.heightMm] as const] : []
  })
  if (heights.length < 6) return 0
  const n = heights.length
  const mean = (k: 0 | 1 | 2) => heights.reduce((a, h) => a + h[k], 0) / n
  const [mx, my, mh] = [mean(0), mean(1), mean(2)]
  let [xx, xy, yy, xh, yh] = [0, 0, 0, 0, 0]
  for (const [x, y, h] of heights) {
    xx += (x - mx) ** 2
    xy += (x - mx) * (y - my)
    yy += (y - my) ** 2
    xh += (x - mx) * (h - mh)
    yh += (y - my) * (h - mh)
  }
  const det = xx * yy - xy * xy
  // Heights that lie in one row or one spot settle no slope.
  if (det < 1e-3 * (xx + yy) ** 2 || xx + yy < n * (3 * socket.pitchMm) ** 2) return 0
  return Math.hypot((xh * yy - yh * xy) / det, (yh * xx - xh * xy) / det)
}
