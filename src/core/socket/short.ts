import { inCircle, normalCdf } from '../normal'
import { benchBeam } from './contact-force'
import type { Beam } from './contact-force'
import { shortGrade } from './function-law'
import type { ShortGrade } from './function-law'
import { isDamage, usualHeightMm, usualLeanMm } from './mark'
import type { Mark, Marks } from './mark'
import { Neighbourhood } from './socket'
import type { Contact, Socket } from './socket'

type Point3 = readonly [number, number, number]

/** A rod with round ends: a segment and a radius, mm. */
export interface Capsule {
  readonly from: Point3
  readonly to: Point3
  readonly radiusMm: number
}

/** Plan length and height of a healthy beam in the mated state, mm (bench default). */
const BEAM_RUN_MM = 0.45
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
  return Math.hypot(p1[0] + d1[0] * s - p2[0] - d2[0] * t, p1[1] + d1[1] * s - p2[1] - d2[1] * t, p1[2] + d1[2] * s - p2[2] - d2[2] * t)
}

const sub = (a: Point3, b: Point3): Point3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const dot = (a: Point3, b: Point3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const clamp01 = (v: number) => Math.min(1, Math.max(0, v))

/** Free gap between two capsules, mm; negative when they run into each other. */
export function clearance(a: Capsule, b: Capsule): number {
  return segmentDistance(a.from, a.to, b.from, b.to) - a.radiusMm - b.radiusMm
}

/** A contact as a capsule, mated (pressed level by the CPU unless it is low). Null when nothing of it stands. */
export function contactCapsule(contact: Contact, mark: Mark | undefined, towards: Contact | undefined, beam: Beam = benchBeam): Capsule | null {
  if (mark?.kind === 'snapped') return null
  const angle = (contact.beamDeg * Math.PI) / 180
  const foot: Point3 = [contact.xMm - BEAM_RUN_MM * Math.cos(angle), contact.yMm - BEAM_RUN_MM * Math.sin(angle), 0]
  if (mark?.kind === 'tip gone') {
    const half: Point3 = [(foot[0] + contact.xMm) / 2, (foot[1] + contact.yMm) / 2, MATED_HEIGHT_MM / 2]
    return { from: foot, to: half, radiusMm: beam.tipRadiusMm }
  }
  if (mark?.kind === 'folded') {
    const over: Point3 = towards ? [towards.xMm, towards.yMm, 0.3] : [foot[0] - BEAM_RUN_MM * Math.cos(angle), foot[1] - BEAM_RUN_MM * Math.sin(angle), 0.2]
    return { from: foot, to: over, radiusMm: beam.tipRadiusMm }
  }
  const [dx, dy] = mark ? usualLeanMm(mark) : [0, 0]
  const height = MATED_HEIGHT_MM + Math.min(0, beam.workingDeflectionMm + (mark ? usualHeightMm(mark) : 0))
  return { from: foot, to: [contact.xMm + dx, contact.yMm + dy, height], radiusMm: beam.tipRadiusMm }
}

/** Two contacts that touch or may touch. */
export interface Short {
  readonly a: string
  readonly b: string
  readonly grade: ShortGrade
  /** seen: marked so by a person; near: too close in the mated state; pad: the tip can reach the neighbour's land. */
  readonly how: 'seen' | 'near' | 'pad'
  readonly clearanceMm: number
  readonly odds: number
}

/** Odds below which a possible short is not worth a word. */
const WORTH_SAYING = 0.02

/** All contacts by name. */
export function byName(socket: Socket): ReadonlyMap<string, Contact> {
  return new Map(socket.contacts.map((c) => [c.name, c]))
}

/**
 * Pairs that touch or may touch once the CPU is in.
 *
 * Seen pairs are certain unless marked unsure. Near pairs: chance that the gap between the capsules is not positive,
 * the gap being judged by eye with σ of the eye. Pad pairs: chance that the tip reaches the neighbour's land.
 */
export function shorts(socket: Socket, marks: Marks, beam: Beam = benchBeam): Short[] {
  const named = byName(socket)
  const near = new Neighbourhood(socket.contacts, socket.pitchMm)
  const found = new Map<string, Short>()
  const keep = (short: Short) => {
    const key = short.a < short.b ? `${short.a}|${short.b}` : `${short.b}|${short.a}`
    const old = found.get(key)
    if (!old || short.odds > old.odds || (short.odds === old.odds && short.how === 'seen')) found.set(key, short)
  }
  for (const [name, mark] of Object.entries(marks)) {
    const contact = named.get(name)
    if (!contact || !isDamage(mark)) continue
    const touched = mark.touches ? named.get(mark.touches) : undefined
    if (touched) {
      keep({ a: name, b: touched.name, grade: shortGrade(contact, touched), how: 'seen', clearanceMm: 0, odds: mark.unsure ? 0.6 : 1 })
    }
    const capsule = contactCapsule(contact, mark, touched, beam)
    if (!capsule) continue
    const lean = usualLeanMm(mark)
    const tip = { x: contact.xMm + lean[0], y: contact.yMm + lean[1] }
    for (const i of near.within(contact.xMm, contact.yMm, socket.pitchMm * 2 + Math.hypot(...lean))) {
      const other = socket.contacts[i]!
      if (other.name === name) continue
      const otherMark = marks[other.name]
      const others = contactCapsule(other, otherMark, otherMark?.touches ? named.get(otherMark.touches) : undefined, beam)
      if (others) {
        const gap = clearance(capsule, others)
        const odds = normalCdf(-gap / (beam.eyeSigmaMm * Math.SQRT2))
        if (odds > WORTH_SAYING) keep({ a: name, b: other.name, grade: shortGrade(contact, other), how: 'near', clearanceMm: gap, odds })
      }
      if (mark.kind === 'folded' || mark.kind === 'tip gone') continue
      const toLand = Math.hypot(tip.x - other.xMm, tip.y - other.yMm)
      const onPad = inCircle(toLand, beam.landDiameterMm / 2 + beam.tipRadiusMm, Math.hypot(beam.placementSigmaMm, beam.eyeSigmaMm))
      if (onPad > WORTH_SAYING) keep({ a: name, b: other.name, grade: shortGrade(contact, other), how: 'pad', clearanceMm: toLand - beam.landDiameterMm / 2 - beam.tipRadiusMm, odds: onPad })
    }
  }
  const weight: Record<ShortGrade, number> = { gravest: 0, grave: 1, unknown: 2, signal: 3, harmless: 4 }
  return [...found.values()].sort((x, y) => weight[x.grade] - weight[y.grade] || y.odds - x.odds || x.a.localeCompare(y.a))
}
