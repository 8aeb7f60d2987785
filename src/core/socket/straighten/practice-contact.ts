import { normalDraw, seeded } from '../../maths/seeded'
import { bendOfFold, lifeUsed, pushFor, snapOdds, yieldDeflection } from '../contact/bend'
import { benchBeam } from '../contact/contact-force'
import type { Beam } from '../contact/contact-force'

/** A simulated contact under the needle: what it was, and all that was done to it. */
export interface PracticeContact {
  readonly seed: number
  /** Where the tip stands from its place, mm, to one side; what is on the other side is negative. */
  readonly offMm: number
  readonly startedMm: number
  readonly folded: boolean
  readonly lifeUsed: number
  readonly pushes: readonly PracticePush[]
  readonly snapped: boolean
}

/** One push: how far the needle took it, where it sprang back to, and what the metal felt. */
export interface PracticePush {
  readonly takenMm: number
  readonly fromMm: number
  readonly toMm: number
  readonly lifeUsed: number
  /** Odds that it would snap at this push. */
  readonly snaps: number
}

/** Near enough to its place to make contact surely, mm. */
export const HOME_MM = 0.08

/** How well it was done. */
export interface PracticeResult {
  readonly done: boolean
  readonly score: number
  /** Pushes the best hand would have needed. */
  readonly fewest: number
  readonly lifeUsed: number
  /** Odds that it would have snapped by now, all pushes together. */
  readonly risked: number
  readonly say: string
}

/** Kinds of contact to practise on, easiest first. */
export const practiceKinds = ['a slight lean', 'a wide lean', 'bent twice before', 'folded flat'] as const
export type PracticeKind = (typeof practiceKinds)[number]

/** A contact drawn with a seed; its metal is a little softer or harder than the book's, which only pushing tells. */
export function drawContact(seed: number, kind: PracticeKind, beam: Beam = benchBeam): PracticeContact {
  const draw = seeded(seed)
  const folded = kind === 'folded flat'
  const offMm = folded ? 0.75 : kind === 'a wide lean' ? 0.35 + 0.2 * draw() : 0.15 + 0.15 * draw()
  const first = lifeUsed(folded ? bendOfFold : pushFor(offMm, beam).curvature, beam)
  const used = kind === 'bent twice before' ? first + 0.35 + 0.25 * draw() : first
  return { seed, offMm, startedMm: offMm, folded, lifeUsed: used, pushes: [], snapped: false }
}

/** Metal of this contact: yield and thickness within a few in a hundred of the book's. */
function metalOf(contact: PracticeContact, beam: Beam): Beam {
  const draw = seeded(contact.seed + 17)
  return {
    ...beam,
    yieldMPa: beam.yieldMPa * (1 + 0.06 * normalDraw(draw)),
    thicknessMm: beam.thicknessMm * (1 + 0.04 * normalDraw(draw)),
  }
}

/** Lasting travel left by taking the tip so far: the push whose over-travel is that, by bisection; none within yield. */
function staysMm(takenMm: number, beam: Beam): number {
  const far = Math.abs(takenMm)
  if (far <= yieldDeflection(beam)) return 0
  let [low, high] = [0, far]
  for (let i = 0; i < 40; i++) {
    const mid = (low + high) / 2
    if (mid + springsBack(mid, beam) < far) low = mid
    else high = mid
  }
  return Math.sign(takenMm) * low
}
const springsBack = (lastingMm: number, beam: Beam) => pushFor(lastingMm, beam).overTravelMm

/**
 * One push with the needle: the tip is taken by so much from where it stands (towards its place is negative when it is
 * off to the positive side), springs back by what is elastic, and has used some of its life, or snaps.
 */
export function pushContact(
  contact: PracticeContact,
  takenMm: number,
  beam: Beam = benchBeam,
): PracticeContact {
  if (contact.snapped || takenMm === 0) return contact
  const metal = metalOf(contact, beam)
  const lasting = staysMm(takenMm, metal)
  // A fold is opened over a short length, which costs the metal far more than a lean of the same travel.
  const folding =
    contact.folded && Math.abs(contact.offMm) > 0.4 ? Math.abs(lasting / contact.startedMm) * bendOfFold : 0
  const used =
    lasting === 0 ? 0 : lifeUsed(Math.max(pushFor(Math.abs(lasting), metal).curvature, folding), metal)
  const after = contact.lifeUsed + used
  const snaps = used === 0 ? 0 : snapOdds(contact.lifeUsed, after)
  const snapped = seeded(contact.seed + 101 * (contact.pushes.length + 1))() < snaps
  const offMm = contact.offMm + lasting
  const push = { takenMm, fromMm: contact.offMm, toMm: offMm, lifeUsed: used, snaps }
  return { ...contact, offMm, lifeUsed: after, snapped, pushes: [...contact.pushes, push] }
}

/** How much of a fold is opened at one push, mm; the smaller, the less the metal feels of it all. */
const FOLD_STEP_MM = 0.15

/** The push the book would make: as far as brings it home, with what springs back; a fold in small steps. */
export function bookPush(contact: PracticeContact, beam: Beam = benchBeam): number {
  const off = Math.abs(contact.offMm)
  const wanted = contact.folded && off > 0.4 ? FOLD_STEP_MM : off
  return -Math.sign(contact.offMm) * (wanted + pushFor(wanted, beam).overTravelMm)
}

/**
 * What it was worth: 100 for a contact brought home in as few pushes as the book's hand needs and no more risk than that;
 * less by what was left, by pushes and by risk beyond it; nothing for a snapped one.
 */
export function practiceResult(contact: PracticeContact, beam: Beam = benchBeam): PracticeResult {
  const risked = 1 - contact.pushes.reduce((p, s) => p * (1 - s.snaps), 1)
  let book = drawnAgain(contact)
  for (let i = 0; i < 12 && Math.abs(book.offMm) > HOME_MM; i++)
    book = { ...pushContact(book, bookPush(book, beam), beam), snapped: false }
  const fewest = Math.max(1, book.pushes.length)
  const bookRisk = 1 - book.pushes.reduce((p, s) => p * (1 - s.snaps), 1)
  const home = Math.abs(contact.offMm) <= HOME_MM
  const used = contact.pushes.reduce((a, p) => a + p.lifeUsed, 0)
  if (contact.snapped)
    return {
      done: true,
      score: 0,
      fewest,
      lifeUsed: used,
      risked,
      say: 'it snapped: each push uses up some of what the metal can take',
    }
  const score = Math.max(
    0,
    Math.round(
      100 -
        (home ? 0 : 40 + 60 * Math.min(1, Math.abs(contact.offMm) / Math.abs(contact.startedMm))) -
        8 * Math.max(0, contact.pushes.length - fewest) -
        200 * Math.max(0, risked - bookRisk),
    ),
  )
  return {
    done: home,
    score: home ? score : Math.min(score, 40),
    fewest,
    lifeUsed: used,
    risked,
    say: sayResult(contact, home, fewest),
  }
}

const drawnAgain = (contact: PracticeContact): PracticeContact => ({
  ...contact,
  offMm: contact.startedMm,
  lifeUsed:
    contact.pushes.length === 0
      ? contact.lifeUsed
      : contact.lifeUsed - contact.pushes.reduce((a, p) => a + p.lifeUsed, 0),
  pushes: [],
  snapped: false,
})

function sayResult(contact: PracticeContact, home: boolean, fewest: number): string {
  const last = contact.pushes.at(-1)
  if (!last) return 'push from the side it leans to, a little past the mark: it springs back'
  if (home)
    return contact.pushes.length <= fewest
      ? 'home, and no hand needs fewer pushes'
      : `home in ${contact.pushes.length}; the book’s hand needs ${fewest}`
  if (last.toMm === last.fromMm)
    return 'it sprang all the way back: that push stayed within what the metal gives back'
  if (Math.sign(last.toMm) !== Math.sign(contact.startedMm))
    return 'past it: now it has to come back, which uses as much of the metal again'
  return `${Math.abs(contact.offMm).toFixed(2)} mm still off: a little farther past the mark`
}
