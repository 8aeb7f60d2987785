import { percent } from '../../maths/percent'
import { median } from '../../maths/median'
import { benchBeam } from '../contact/contact-force'
import { fieldOf } from '../model/socket'
import type { Socket } from '../model/socket'
import { corners, layThrough } from './anchors'
import type { Anchor, PhotoFault } from './anchors'
import { claimTips } from './claim'
import { onPhoto, onPlane } from './work'
import type { TipSeen, Work } from './work'
import { MOST_PIXELS, shrink } from '../../photo/grey-image'
import type { Cut, GreyImage } from '../../photo/grey-image'
import { lightField } from './light-field'
import type { Shifted } from './light-field'
import { PeakPlaces, peaksOf, spotResponse } from './peaks'
import type { Peaks } from './peaks'
import { liesAsNamed } from './turned'
import { fromPairs, project, refine, scaleAt, unproject, withoutLens } from '../../photo/projection'
import type { Pair, Point, Projection } from '../../photo/projection'

export interface Located {
  readonly projection: Projection
  readonly pxPerMm: number
  readonly tips: readonly TipSeen[]
  /** Scatter of tips that are in place, σ of one coordinate, mm. */
  readonly spreadMm: number
  /** Share of the contacts in the picture whose tip is where the field says. */
  readonly fitted: number
}

export interface LocateAnswer {
  /** Null when the photo cannot be read as this socket: no map is made up. */
  readonly located: Located | null
  readonly faults: readonly PhotoFault[]
  /** Other ways the field could lie that fit the photo just as well: asked about before any map. */
  readonly ask?: readonly string[]
}

/** Radius of a tip in the working picture, px; a larger photo is shrunk to it. */
const WORK_RADIUS_PX = 3.3
export interface LocateOptions {
  /** The picture shows the field as in a mirror. */
  readonly mirrored?: boolean
  /** What a photo from straight above gave: this one is then read as taken from the side. */
  readonly known?: Located
}

/** Fewest pixels per mm at which a tip is more than a speck. */
const LEAST_PX_PER_MM = 22

/**
 * From a photo and four or more clicked contacts to where every tip is.
 *
 * 1. homography through the clicks (normalised direct linear transform); the lens term by trial, the one under which
 *    most tips lie where they should;
 * 2. bright spots of a tip's size, to a fraction of a pixel (difference of Gaussians);
 * 3. homography and lens refined on all tips (Levenberg and Marquardt, biweight), three times with narrower windows;
 * 4. the smooth shift by light and lens fitted and taken out (`lightField`);
 * 5. every contact claims one tip at most (`claimTips`): first what lies in place, then the rest by least total cost;
 * 6. what is found is in place or displaced; what is not is missing, ambiguous, or not seen (glare, edge, too dark).
 *
 * Yields the share that is done, so that it can be shown and dropped. Limits: tips brighter than what is round them; a
 * contact dragged by nearly a whole pitch onto its neighbour's place is told by its strip only.
 * @param image from straight above, or, with `known`, from the side
 * @throws RangeError if the picture's bytes do not match its size
 */
export function* locate(
  socket: Socket,
  image: GreyImage,
  anchors: readonly Anchor[],
  { mirrored = false, known }: LocateOptions = {},
): Generator<number, LocateAnswer> {
  const { widthPx, heightPx } = image
  if (image.grey.length !== widthPx * heightPx)
    throw new RangeError(`${image.grey.length} bytes are not a picture of ${widthPx} × ${heightPx}`)
  const refused = (field: PhotoFault['field'], text: string): LocateAnswer => ({
    located: null,
    faults: [{ field, text }],
  })
  if (widthPx * heightPx > MOST_PIXELS)
    return refused(
      'photo',
      `${widthPx} × ${heightPx} px is more than 24 MP; make it smaller or take it in parts`,
    )
  const laid = layThrough(socket, anchors, widthPx, heightPx, mirrored)
  if (laid.fault) return { located: null, faults: [laid.fault] }
  const pxPerMm = scaleAt(laid.projection, 0, 0)
  if (pxPerMm < LEAST_PX_PER_MM)
    return refused(
      'photo',
      `only ${pxPerMm.toFixed(0)} px per mm: a tip is ${(2 * benchBeam.tipRadiusMm * pxPerMm).toFixed(0)} px wide; come nearer, or take the field in parts (at least ${LEAST_PX_PER_MM}, better 70)`,
    )
  yield 0.02
  const factor = Math.max(1, Math.round((pxPerMm * benchBeam.tipRadiusMm) / WORK_RADIUS_PX))
  const cut = cutRound(socket, laid.projection, image)
  const plane = shrink(image, factor, cut)
  const radiusPx = (pxPerMm * benchBeam.tipRadiusMm) / factor
  const work: Work = { socket, plane, factor, leftPx: cut.leftPx, topPx: cut.topPx, widthPx, heightPx }
  yield 0.15
  const blown = shareBlown(work, laid.projection)
  if (blown > 0.25)
    return refused(
      'photo',
      `${Math.round(blown * 100)} % of the field is pure white: turn the light down or shield it, and take the photo again`,
    )
  const response = spotResponse(plane, radiusPx)
  yield 0.6
  const peaks = peaksOf(response, 5)
  const inside = insideOf(work, laid.projection)
  if (inside.length < 12)
    return refused(
      'anchors',
      'hardly any contact of this socket lies in the picture: are the clicks on the right contacts?',
    )
  const strong = strongest(peaks, inside.length)
  const grid = new PeakPlaces(peaks)
  yield 0.7
  const start = withLens(work, laid.projection, anchors, grid, strong * 0.35)
  const { projection, pairs } = fitAll(work, start, grid, strong * 0.35)
  yield 0.8
  const seen = insideOf(work, projection)
  const fitted = pairs.length / Math.max(1, seen.length)
  // Spots that lie as well half a pitch beside the contacts are no field of tips.
  const byChance =
    matched(work, projection, grid, strong * 0.35, 0.15, [0.5, 0.5]).length / Math.max(1, seen.length)
  if (fitted - byChance < 0.5 || seen.length < 12)
    return { located: null, faults: [unlike(socket, peaks, strong, seen.length, fitted, pxPerMm / factor)] }
  const off = rowsOff(work, projection, grid, strong * 0.35, pairs.length)
  if (off) return refused('anchors', off)
  const lies = known ? { fault: null, ask: [] } : liesAsNamed(work, projection, grid, strong * 0.35)
  if (lies.fault) return { located: null, faults: [lies.fault] }
  const shifted = pairs.map(({ contact, px }): Shifted => {
    const c = socket.contacts[contact]!
    const at = unproject(projection, px[0], px[1])
    return { mm: [c.xMm, c.yMm], beamDeg: c.beamDeg, offMm: [at[0] - c.xMm, at[1] - c.yMm] }
  })
  const { at: shift, spreadMm } = lightField(shifted)
  yield 0.85
  const tips = claimTips({
    ...work,
    projection,
    shift,
    grid,
    strong,
    ...(known ? { known: known.tips.map((t) => t.offsetMm) } : {}),
  })
  yield 0.98
  const faults: PhotoFault[] = []
  const unseen = tips.filter((t) => t.as === 'not seen').length
  const out = socket.contacts.length - seen.length
  if (out > 0)
    faults.push({
      field: 'photo',
      text: `${out} of ${socket.contacts.length} contacts lie outside the picture: they are not inspected; take another photo of that part`,
    })
  if (unseen - out > 0)
    faults.push({
      field: 'photo',
      text: `${unseen - out} contacts in the picture cannot be seen for glare, shadow or the edge: they are not inspected`,
    })
  faults.push(...misclicked(work, projection, anchors))
  if (pxPerMm < 45)
    faults.push({
      field: 'photo',
      text: `${pxPerMm.toFixed(0)} px per mm: small leans are measured roughly; 70 or more is better`,
    })
  return { located: { projection, pxPerMm, tips, spreadMm, fitted }, faults, ask: lies.ask }
}

/** The part of the picture that holds the field, with two pitches to spare for lens and rough clicks. */
function cutRound(socket: Socket, p: Projection, image: GreyImage): Cut {
  const spare = 2 * socket.pitchMm * scaleAt(p, 0, 0)
  const xs = corners(socket).map(([x, y]) => project(p, x, y))
  const between = (of: number, most: number) => Math.round(Math.min(most, Math.max(0, of)))
  const leftPx = between(Math.min(...xs.map(([x]) => x)) - spare, image.widthPx - 1)
  const topPx = between(Math.min(...xs.map(([, y]) => y)) - spare, image.heightPx - 1)
  const rightPx = between(Math.max(...xs.map(([x]) => x)) + spare, image.widthPx)
  const bottomPx = between(Math.max(...xs.map(([, y]) => y)) + spare, image.heightPx)
  return { leftPx, topPx, widthPx: rightPx - leftPx, heightPx: bottomPx - topPx }
}

/** Contacts whose tip would be in the picture, by number. */
function insideOf({ socket, widthPx, heightPx }: Work, p: Projection): number[] {
  const found: number[] = []
  socket.contacts.forEach((c, i) => {
    const [x, y] = project(p, c.xMm, c.yMm)
    if (x >= 0 && y >= 0 && x < widthPx && y < heightPx) found.push(i)
  })
  return found
}

/** A field laid a row or a column off: more contacts have a tip when all of it is moved by one pitch. */
function rowsOff(work: Work, p: Projection, grid: PeakPlaces, floor: number, now: number): string | null {
  for (const [dx, dy, words] of [
    [1, 0, 'one column to the right'],
    [-1, 0, 'one column to the left'],
    [0, 1, 'one row away'],
    [0, -1, 'one row nearer'],
  ] as const) {
    const then = matched(work, p, grid, floor, 0.2, [dx, dy]).length
    if (then > now + 4)
      return `the tips fit better with the whole field ${words} (${then} of them instead of ${now}): the clicks are off by that much; click again`
  }
  return null
}

/** Clicks that lay on another contact than they said: all the other tips put the field elsewhere. */
function misclicked({ socket }: Work, p: Projection, anchors: readonly Anchor[]): PhotoFault[] {
  const { named, near } = fieldOf(socket)
  return anchors.flatMap(({ contact, px }): PhotoFault[] => {
    const c = named.get(contact)!
    const [x, y] = unproject(p, px[0], px[1])
    if (Math.hypot(x - c.xMm, y - c.yMm) < 0.6 * socket.pitchMm) return []
    const on = near.within(x, y, 0.5 * socket.pitchMm).map((i) => socket.contacts[i]!.name)[0]
    return [
      {
        field: 'anchors',
        text: `the click for ${contact} lay ${on ? `on ${on}` : 'beside it'}; the other tips put the field right`,
      },
    ]
  })
}

/** Share of what is round the contacts that is pure white. */
function shareBlown(work: Work, p: Projection): number {
  const { plane } = work
  let white = 0
  let n = 0
  for (const i of insideOf(work, p)) {
    const c = work.socket.contacts[i]!
    const [x, y] = onPlane(work, project(p, c.xMm, c.yMm))
    for (let dy = -6; dy <= 6; dy += 3)
      for (let dx = -6; dx <= 6; dx += 3) {
        const [ix, iy] = [Math.round(x + dx), Math.round(y + dy)]
        if (ix < 0 || iy < 0 || ix >= plane.widthPx || iy >= plane.heightPx) continue
        n++
        if (plane.values[iy * plane.widthPx + ix]! > 250) white++
      }
  }
  return n === 0 ? 0 : white / n
}

/** Strength of a usual tip: the median of as many of the strongest peaks as there are contacts. */
function strongest(peaks: Peaks, contacts: number): number {
  const sorted = Float64Array.from(peaks.strength).sort()
  return median(sorted.subarray(Math.max(0, sorted.length - contacts)))
}

/** The lens term under which most contacts have a spot where they should: tried from barrel to pincushion. */
function withLens(
  work: Work,
  laid: Projection,
  anchors: readonly Anchor[],
  grid: PeakPlaces,
  floor: number,
): Projection {
  const { named } = fieldOf(work.socket)
  let best = laid
  let most = -1
  for (let k1 = -0.05; k1 <= 0.0501; k1 += 0.01) {
    const pairs = anchors.map(({ contact, px }): Pair => {
      const c = named.get(contact)!
      const [u0, v0] = [
        (px[0] - laid.middle[0]) / laid.halfDiagonalPx,
        (px[1] - laid.middle[1]) / laid.halfDiagonalPx,
      ]
      const [u, v] = withoutLens(k1, u0, v0)
      return {
        mm: [c.xMm, c.yMm],
        px: [laid.middle[0] + u * laid.halfDiagonalPx, laid.middle[1] + v * laid.halfDiagonalPx],
      }
    })
    const tried = { ...fromPairs(pairs, work.widthPx, work.heightPx), k1 }
    const hits = matched(work, tried, grid, floor, 0.2).length
    if (hits > most) {
      most = hits
      best = tried
    }
  }
  return best
}

interface Matched extends Pair {
  readonly contact: number
}

/** Contacts with a spot within so many pitches of their place, or of a place so many pitches beside it. */
function matched(
  work: Work,
  p: Projection,
  grid: PeakPlaces,
  floor: number,
  pitches: number,
  beside: Point = [0, 0],
): Matched[] {
  const { socket, factor } = work
  const found: Matched[] = []
  for (const i of insideOf(work, p)) {
    const c = socket.contacts[i]!
    const [away, up] = [beside[0] * socket.pitchMm, beside[1] * socket.pitchMm]
    const [x, y] = onPlane(work, project(p, c.xMm + away, c.yMm + up))
    const radius = (pitches * socket.pitchMm * scaleAt(p, c.xMm, c.yMm)) / factor
    const peak = grid.nearest(x, y, radius)
    if (peak < 0 || grid.peaks.strength[peak]! < floor) continue
    found.push({
      contact: i,
      mm: [c.xMm, c.yMm],
      px: onPhoto(work, [grid.peaks.x[peak]!, grid.peaks.y[peak]!]),
    })
  }
  return found
}

/** Refined on all tips, with windows that narrow as the fit gets better. */
function fitAll(
  work: Work,
  start: Projection,
  grid: PeakPlaces,
  floor: number,
): { readonly projection: Projection; readonly pairs: readonly Matched[] } {
  let projection = start
  for (const pitches of [0.38, 0.25, 0.18]) {
    const pairs = matched(work, projection, grid, floor, pitches)
    if (pairs.length < 12) break
    projection = refine(projection, pairs, pairs.length >= 60)
  }
  return { projection, pairs: matched(work, projection, grid, floor, 0.15) }
}

/** Why so few tips are where this socket has its contacts. */
function unlike(
  socket: Socket,
  peaks: Peaks,
  strong: number,
  inside: number,
  fitted: number,
  pxPerMm: number,
): PhotoFault {
  const bright = [...peaks.strength.keys()].filter((i) => peaks.strength[i]! > strong * 0.5)
  const near = new PeakPlaces(peaks)
  const gaps = bright.slice(0, 3000).flatMap((i) => {
    const around = near.within(peaks.x[i]!, peaks.y[i]!, 1.6 * socket.pitchMm * pxPerMm)
    const far = around
      .filter((j) => j !== i && peaks.strength[j]! > strong * 0.5)
      .map((j) => Math.hypot(peaks.x[j]! - peaks.x[i]!, peaks.y[j]! - peaks.y[i]!))
    return far.length > 0 ? [Math.min(...far) / pxPerMm] : []
  })
  const gap = median(gaps)
  const even = gaps.filter((g) => Math.abs(g - gap) < 0.06 * gap).length / Math.max(1, gaps.length)
  const share = `only ${percent(fitted)} of the contacts have a tip where ${socket.name} has them`
  if (even > 0.55 && bright.length > inside * 0.3)
    return {
      field: 'socket',
      text:
        Math.abs(gap - socket.pitchMm) > 0.04 * socket.pitchMm
          ? `${share}: the tips in the photo stand about ${gap.toFixed(2)} mm apart by your clicks, this socket’s ${socket.pitchMm} mm. Another socket, or the clicks are some rows off`
          : `${share}: the spacing is right but the clicks are off by part of a row; click again, each on its own tip`,
    }
  return {
    field: 'photo',
    text: `${share}, and no even field of tips is to be seen: is it a photo of this socket, sharp, with the CPU out?`,
  }
}
