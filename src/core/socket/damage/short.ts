import { inCircle, normalCdf } from '../../maths/normal'
import { benchBeam } from '../contact/contact-force'
import type { Beam } from '../contact/contact-force'
import { shortGrade } from '../contact/function-law'
import type { ShortGrade } from '../contact/function-law'
import { isDamage, usualHeightMm, usualLeanMm } from './mark'
import type { Mark, Marks } from './mark'
import { fieldOf } from '../model/socket'
import type { Contact, Socket, SocketKind } from '../model/socket'

type Point3 = readonly [number, number, number]

/** A rod with round ends: a segment and a radius, mm. */
export interface Capsule {
  readonly from: Point3
  readonly to: Point3
  readonly radiusMm: number
}

/** Plan length and height of a healthy beam in the mated state, mm (bench default). */
export const BEAM_RUN_MM = 0.45
const MATED_HEIGHT_MM = 0.5

/**
 * Least distance between two segments in space, mm.
 * Source: Ericson, Real-Time Collision Detection (2005), section 5.1.9.
 */
export function segmentDistance(p1: Point3, q1: Point3, p2: Point3, q2: Point3): number {
  const d1 = sub(q1, p1)
  const d2 = sub(q2, p2)
  const r = sub(p1, p2)
  const a = dot(d1, d1)
  const e = dot(d2, d2)
  const f = dot(d2, r)
  let s = 0
  let t = 0
  if (a <= 1e-12 && e <= 1e-12) return Math.hypot(...r)
  if (a <= 1e-12) t = clamp01(f / e)
  else {
    const c = dot(d1, r)
    if (e <= 1e-12) s = clamp01(-c / a)
    else {
      const b = dot(d1, d2)
      const denominator = a * e - b * b
      s = denominator > 1e-12 ? clamp01((b * f - c * e) / denominator) : 0
      t = (b * s + f) / e
      if (t < 0) {
        t = 0
        s = clamp01(-c / a)
      } else if (t > 1) {
        t = 1
        s = clamp01((b - c) / a)
      }
    }
  }
  return Math.hypot(
    p1[0] + d1[0] * s - p2[0] - d2[0] * t,
    p1[1] + d1[1] * s - p2[1] - d2[1] * t,
    p1[2] + d1[2] * s - p2[2] - d2[2] * t,
  )
}

const sub = (a: Point3, b: Point3): Point3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const dot = (a: Point3, b: Point3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const clamp01 = (v: number) => Math.min(1, Math.max(0, v))

/** Free gap between two capsules, mm; negative when they run into each other. */
export function clearance(a: Capsule, b: Capsule): number {
  return segmentDistance(a.from, a.to, b.from, b.to) - a.radiusMm - b.radiusMm
}

/** A contact as a capsule, mated (pressed level by the CPU unless it is low). Null when nothing of it stands. */
export function contactCapsule(
  contact: Contact,
  mark: Mark | undefined,
  towards: Contact | undefined,
  kind: SocketKind = 'land-grid',
  beam: Beam = benchBeam,
): Capsule | null {
  if (mark?.kind === 'snapped') return null
  const [dx, dy] = mark ? usualLeanMm(mark) : [0, 0]
  const run = kind === 'pin-grid' ? 0 : BEAM_RUN_MM
  // A strip is as wide as it is: its half-width, not the radius of its tip, runs into a neighbour.
  const radiusMm = kind === 'pin-grid' ? beam.pinRadiusMm : beam.widthMm / 2
  const angle = (contact.beamDeg * Math.PI) / 180
  const along: readonly [number, number] = [Math.cos(angle), Math.sin(angle)]
  const foot: Point3 = [contact.xMm - run * along[0], contact.yMm - run * along[1], 0]
  if (mark?.kind === 'tip gone') {
    const half: Point3 = [(foot[0] + contact.xMm) / 2, (foot[1] + contact.yMm) / 2, MATED_HEIGHT_MM / 2]
    return { from: foot, to: half, radiusMm }
  }
  if (mark?.kind === 'folded') {
    const over: Point3 = towards
      ? [towards.xMm, towards.yMm, 0.3]
      : [foot[0] - BEAM_RUN_MM * along[0], foot[1] - BEAM_RUN_MM * along[1], 0.2]
    return { from: foot, to: over, radiusMm }
  }
  const height = MATED_HEIGHT_MM + Math.min(0, beam.workingDeflectionMm + (mark ? usualHeightMm(mark) : 0))
  return { from: foot, to: [contact.xMm + dx, contact.yMm + dy, height], radiusMm }
}

/** Two contacts that touch or may touch. */
export interface Short {
  readonly a: string
  readonly b: string
  readonly grade: ShortGrade
  /**
   * seen: marked so by a person; near: too close in the mated state; pad: the tip can reach the neighbour's land;
   * reach: it touches or lies over one of several, and nobody has named which.
   */
  readonly how: 'seen' | 'near' | 'pad' | 'reach'
  readonly clearanceMm: number
  readonly odds: number
}

const joins = (kind: Mark['kind'] | undefined) => kind === 'touching' || kind === 'folded'

/** It touches or lies over a neighbour, or may, and which is not named, or is no contact of this socket. */
export const touchesNobodyNamed = (mark: Mark, socket: Socket | null): boolean =>
  (joins(mark.kind) || joins(mark.maybe)) &&
  (mark.touches === undefined || (socket !== null && !fieldOf(socket).named.has(mark.touches)))

/** The neighbours a contact can touch, or lie over with the whole length of its strip. */
function inReach(socket: Socket, contact: Contact, mark: Mark, beam: Beam): Contact[] {
  const folds = mark.kind === 'folded' || mark.maybe === 'folded'
  const reachMm = Math.max(1.5 * socket.pitchMm, folds && socket.kind === 'land-grid' ? beam.lengthMm : 0)
  return fieldOf(socket)
    .near.within(contact.xMm, contact.yMm, reachMm)
    .map((i) => socket.contacts[i]!)
    .filter((other) => other !== contact)
}

/** What may be folded rather than missing still stands in the way. */
const worstStanding = (mark: Mark | undefined): Mark | undefined =>
  mark?.maybe === 'folded' ? { ...mark, kind: 'folded' } : mark

/** Odds below which a possible short is not worth a word. */
const WORTH_SAYING = 0.02

/**
 * Pairs that touch or may touch once the CPU is in.
 *
 * Seen pairs are certain unless marked unsure. Near pairs: chance that the gap between the capsules is not positive,
 * the gap being judged by eye with σ of the eye. Pad pairs: chance that the tip reaches the neighbour's land.
 */
export function shorts(socket: Socket, marks: Marks, beam: Beam = benchBeam): Short[] {
  const { named, near } = fieldOf(socket)
  const found = new Map<string, Short>()
  const keep = (a: Contact, b: Contact, how: Short['how'], clearanceMm: number, odds: number) => {
    if (odds <= WORTH_SAYING) return
    const key = a.name < b.name ? `${a.name}|${b.name}` : `${b.name}|${a.name}`
    const old = found.get(key)
    if (old && (old.odds > odds || (old.odds === odds && how !== 'seen'))) return
    found.set(key, { a: a.name, b: b.name, grade: shortGrade(a, b), how, clearanceMm, odds })
  }
  const capsuleOf = (contact: Contact) => {
    const mark = worstStanding(marks[contact.name])
    const touched = mark?.touches ? named.get(mark.touches) : undefined
    return contactCapsule(contact, mark, touched, socket.kind, beam)
  }
  /** How far from its foot a contact can be found. */
  const reachOf = (contact: Contact, mark: Mark): number => {
    const touched = mark.touches ? named.get(mark.touches) : undefined
    const over = touched ? Math.hypot(touched.xMm - contact.xMm, touched.yMm - contact.yMm) : 0
    return Math.max(over, Math.hypot(...usualLeanMm(mark)))
  }
  let farthest = 0
  for (const [name, mark] of Object.entries(marks)) {
    const contact = named.get(name)
    if (contact) farthest = Math.max(farthest, reachOf(contact, mark))
  }
  const padReach = beam.landDiameterMm / 2 + beam.tipRadiusMm
  const padSigma = Math.hypot(beam.placementSigmaMm, beam.eyeSigmaMm)
  for (const [name, mark] of Object.entries(marks)) {
    const contact = named.get(name)
    if (!contact || !isDamage(mark)) continue
    const touched = mark.touches ? named.get(mark.touches) : undefined
    const sure = mark.unsure || (mark.maybe && !joins(mark.kind)) ? 0.6 : 1
    if (touched && touched !== contact) keep(contact, touched, 'seen', 0, sure)
    if (touchesNobodyNamed(mark, socket)) {
      const around = inReach(socket, contact, mark, beam)
      for (const other of around) keep(contact, other, 'reach', 0, sure / around.length)
    }
    const capsule = capsuleOf(contact)
    if (!capsule) continue
    const lean = usualLeanMm(mark)
    const landing = socket.kind === 'land-grid' && mark.kind !== 'folded' && mark.kind !== 'tip gone'
    for (const i of near.within(
      contact.xMm,
      contact.yMm,
      socket.pitchMm * 2 + reachOf(contact, mark) + farthest,
    )) {
      const other = socket.contacts[i]!
      if (other === contact) continue
      const others = capsuleOf(other)
      if (others) {
        const gapMm = clearance(capsule, others)
        keep(contact, other, 'near', gapMm, normalCdf(-gapMm / (beam.eyeSigmaMm * Math.SQRT2)))
      }
      if (!landing) continue
      const toLand = Math.hypot(contact.xMm + lean[0] - other.xMm, contact.yMm + lean[1] - other.yMm)
      keep(contact, other, 'pad', toLand - padReach, inCircle(toLand, padReach, padSigma))
    }
  }
  const weight: Record<ShortGrade, number> = { gravest: 0, grave: 1, unknown: 2, signal: 3, harmless: 4 }
  return [...found.values()].sort(
    (x, y) => weight[x.grade] - weight[y.grade] || y.odds - x.odds || x.a.localeCompare(y.a),
  )
}
