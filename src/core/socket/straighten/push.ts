import { percent } from '../../maths/percent'
import { bendOfFold, lifeUsed, pushFor, snapOdds } from '../contact/bend'
import { benchBeam, contactVerdict } from '../contact/contact-force'
import type { Beam } from '../contact/contact-force'
import { LEFT_SHORT, leanSizeMm, usualHeightMm } from '../damage/mark'
import type { Mark } from '../damage/mark'
import { FOLD_PITCHES, slipOdds } from './technique'
import type { Technique } from './technique'
import type { SocketKind } from '../model/socket'

/** How one contact stands when the next stroke is weighed. */
export interface PushQuestion {
  readonly kind: SocketKind
  readonly technique: Technique
  /** Distance of the tip from its place, mm; height and lean together. */
  readonly residualMm: number
  /** Whether what is off is height rather than lean. */
  readonly isHeight: boolean
  /** Share of the bending life that is used: the bend that did the damage, and the strokes so far. */
  readonly lifeUsed: number
  /** Odds that the board runs with this contact good, and with it lost, all else as it stands. */
  readonly runsGood: number
  readonly runsLost: number
  /** What a running board is worth, and a stroke's minutes, in money. */
  readonly worthMinor: number
  readonly strokeMinor: number
  /** What losing the contact costs apart from the odds: a transplant, a donor. */
  readonly lossMinor: number
  /** Factor on the odds of snapping from this shop's own record; 1 where there is none. */
  readonly snapFactor?: number
  /** Lean and height of the tip as it stands, mm: what is left of both counts together. By the residual alone if not given. */
  readonly leanMm?: number
  readonly heightMm?: number
  /** It was folded back flat, and so far is the whole way home, mm: going it is one more bend of the fold's size. */
  readonly foldMm?: number
  /** Chance that the hand loses it in a stroke; by the technique if not given. */
  readonly slip?: number
  /** As it stands it joins, or may join, what must not be joined: left so, the board may not be powered. */
  readonly shortStands?: 'surely' | 'perhaps'
}

/** What one more stroke would do. */
export interface NextStroke {
  readonly stroke: number
  readonly residualMm: number
  /** Odds that it makes contact after it. */
  readonly makesContact: number
  /** Odds that this stroke snaps it. */
  readonly snaps: number
  /** Odds that it is lost by then, this stroke and those before it. */
  readonly lostByThen: number
  /** What the stroke is worth over stopping, money. */
  readonly gainMinor: number
}

export interface PushAdvice {
  readonly advice: 'push' | 'part' | 'stop' | 'test'
  /** In a sentence. */
  readonly why: string
  readonly makesContactNow: number
  readonly snapsNext: number
  /** Worth of going on in the best way over stopping now, money. */
  readonly gainMinor: number
  /** Strokes it would take on the average if each goes as strokes go. */
  readonly strokesLeft: number
  /** The three ends, money: worked in the best way, lost, left as it is. */
  readonly ends: { readonly pushedMinor: number; readonly lostMinor: number; readonly leftMinor: number }
  /** What follows stroke by stroke, if none snaps it. */
  readonly curve: readonly NextStroke[]
}

/** How far a contact is from its place, mm: the larger of lean and height; touching or folded it is at least half a millimetre. */
export function offsetOf(mark: Mark): { readonly offsetMm: number; readonly isHeight: boolean } {
  const lean = leanSizeMm(mark)
  const height = Math.abs(usualHeightMm(mark))
  const least = mark.kind === 'folded' || mark.kind === 'touching' ? 0.5 : mark.kind === 'twisted' ? 0.12 : 0
  return { offsetMm: Math.max(lean, height, least), isHeight: height > lean }
}

/** Bending life used: by the bend that did the damage, and by each stroke at what was then left of it. */
export function lifeSoFar(first: Mark, strokes: number, pitchMm: number, beam: Beam = benchBeam): number {
  const bend =
    first.kind === 'folded' ? bendOfFold : pushFor(Math.max(offsetOf(first).offsetMm, 0.03), beam).curvature
  let life = lifeUsed(bend, beam)
  const foldMm = first.kind === 'folded' ? FOLD_PITCHES * pitchMm : undefined
  let left = foldMm ?? offsetOf(first).offsetMm
  for (let i = 0; i < strokes; i++) {
    life += strokeLife({ foldMm }, left, left * LEFT_SHORT, beam)
    left *= LEFT_SHORT
  }
  return life
}

/**
 * Life used by a stroke that takes the tip from `from` to `to`, mm off its place. A fold is unbent over the same short
 * length it was bent at: the strain adds up along the one way home, D(f₂) − D(f₁) with D the life of the share f of the
 * fold's bend, so that all strokes together use just what going home in one would.
 */
function strokeLife(q: Pick<PushQuestion, 'foldMm'>, from: number, to: number, beam: Beam): number {
  const { foldMm } = q
  if (foldMm === undefined) return lifeUsed(pushFor(from, beam).curvature, beam)
  const upTo = (left: number) => lifeUsed(bendOfFold * Math.min(1, Math.max(0, 1 - left / foldMm)), beam)
  return (
    Math.max(0, upTo(Math.abs(to)) - upTo(from)) +
    lifeUsed(pushFor(Math.min(from, 0.1), beam).curvature, beam)
  )
}

/** Steps of the residual offset, mm, and how many; the last one stands for all that is more. */
const STEP_MM = 0.02
const STEPS = 51
/** Steps of life used, and the largest sum that is told apart. */
const LIFE_STEPS = 41
const MOST_LIFE = 2
/** Strokes looked ahead (bench default). */
const HORIZON = 8
/**
 * Where a stroke meant to bring the tip home leaves it: shares of the way that is left over, with their odds. The hand
 * is careful, so more often short than past (bench default).
 */
const leftOver: readonly (readonly [share: number, odds: number])[] = [
  [0.05, 0.25],
  [0.25, 0.3],
  [0.45, 0.25],
  [0.7, 0.12],
  [-0.25, 0.08],
]
/** A tip is never taken to be nearer home than it can be seen to be, mm. */
const SEEN_MM = 0.02

/** Odds that it makes contact with so much left; lean and height come home together. */
function makes(q: PushQuestion, residualMm: number, beam: Beam): number {
  if (residualMm < 1e-9) return 1
  const share = q.residualMm > 0 ? residualMm / q.residualMm : 0
  const lean = q.leanMm === undefined ? (q.isHeight ? 0 : residualMm) : q.leanMm * share
  const height = q.heightMm === undefined ? (q.isHeight ? -residualMm : 0) : q.heightMm * share
  const mark = { kind: 'lean', leanMm: [lean, 0], heightMm: height } as const
  return contactVerdict(mark, q.kind, beam).makesContact
}

/** Odds that a stroke by so much snaps the contact or loses it to a slip. */
function losesIt(q: PushQuestion, life: number, after: number): number {
  const metal = Math.min(1, snapOdds(life, after) * (q.snapFactor ?? 1))
  return 1 - (1 - metal) * (1 - Math.min(1, slipOf(q) * (q.snapFactor ?? 1)))
}

/** A fold's way home is several small steps; the hand's chance of losing it holds for all of them together. */
const slipOf = (q: PushQuestion) => {
  const slip = q.slip ?? slipOdds[q.technique]
  return q.foldMm === undefined ? slip : 1 - (1 - slip) ** (1 / FOLD_STEPS)
}
/** Steps a fold usually takes (as the plan counts them). */
const FOLD_STEPS = 5
/** Share of the way home up to which what touches still touches (bench default). */
const STILL_TOUCHES = 0.6

const step = (residualMm: number) => Math.min(STEPS - 1, Math.round(Math.abs(residualMm) / STEP_MM))
/** The steps of the offset that strokes can lead to, this one among them. */
function offsetsFrom(start: number): ReadonlySet<number> {
  const offsets = new Set([start])
  for (const r of offsets) for (const [share] of leftOver) offsets.add(step(r * STEP_MM * share))
  return offsets
}
const lifeStep = (life: number) =>
  Math.min(LIFE_STEPS - 1, Math.max(0, Math.round((life / MOST_LIFE) * (LIFE_STEPS - 1))))

/**
 * Stop or push: a finite-horizon dynamic programme over what is left of the offset and what is used of the metal.
 *
 * V₀(r, d) = worth · runs(r); Vₙ(r, d) = max(V₀(r, d), −stroke + Σ odds · ((1 − s)·Vₙ₋₁(r′, d′) + s·(worth · runsLost − loss))),
 * with runs(r) = runsLost + makes(r)·(runsGood − runsLost), and 0 while a short stands: left so, the board is lost. A stroke aims to bring all of r home, bends by what that
 * takes (`pushFor`), uses life by it (Coffin–Manson), and leaves one of five shares of r (bench default).
 * On a grid of 0.02 mm and 41 steps of life, which `push.test.ts` checks against an exhaustive search.
 * @returns push, part (a short stands), stop, or test: good enough that trying tells more than another stroke
 */
export function pushAdvice(q: PushQuestion, beam: Beam = benchBeam, horizon = HORIZON): PushAdvice {
  const makesAt = Float64Array.from({ length: STEPS }, (_, i) => makes(q, i * STEP_MM, beam))
  const lost = q.worthMinor * q.runsLost - q.lossMinor
  const stopAt = Float64Array.from(makesAt, (m, r) =>
    q.shortStands && r * STEP_MM > STILL_TOUCHES * q.residualMm
      ? 0
      : q.worthMinor * (q.runsLost + m * (q.runsGood - q.runsLost)),
  )
  let value = Float64Array.from({ length: STEPS * LIFE_STEPS }, (_, k) => stopAt[Math.floor(k / LIFE_STEPS)]!)
  const r0 = step(q.residualMm)
  const d0 = lifeStep(q.lifeUsed)
  const offsets = offsetsFrom(r0)
  // Where each stroke leads and what it loses is the same however many strokes are ahead.
  const to = new Int32Array(value.length * leftOver.length)
  const snaps = new Float64Array(to.length)
  for (const r of offsets)
    for (const [i, [share]] of leftOver.entries()) {
      const uses = strokeLife(q, r * STEP_MM, r * STEP_MM * share, beam)
      for (let d = 0; d < LIFE_STEPS; d++) {
        const life = (d / (LIFE_STEPS - 1)) * MOST_LIFE
        const k = (r * LIFE_STEPS + d) * leftOver.length + i
        to[k] = step(r * STEP_MM * share) * LIFE_STEPS + lifeStep(life + uses)
        snaps[k] = losesIt(q, life, life + uses)
      }
    }
  const strokeFrom = (r: number, d: number, before: Float64Array): number => {
    const k = (r * LIFE_STEPS + d) * leftOver.length
    let then = 0
    for (let i = 0; i < leftOver.length; i++)
      then += leftOver[i]![1] * ((1 - snaps[k + i]!) * before[to[k + i]!]! + snaps[k + i]! * lost)
    return -q.strokeMinor + then
  }
  let first = -Infinity
  for (let n = 1; n <= horizon; n++) {
    const next = new Float64Array(value.length)
    for (const r of offsets)
      for (let d = 0; d < LIFE_STEPS; d++)
        next[r * LIFE_STEPS + d] = r === 0 ? stopAt[0]! : Math.max(stopAt[r]!, strokeFrom(r, d, value))
    if (n === horizon) first = r0 === 0 ? -Infinity : strokeFrom(r0, d0, value)
    value = next
  }
  const gainMinor = first === -Infinity ? 0 : first - stopAt[r0]!
  const curve = strokesAhead(q, makesAt, stopAt, lost, beam)
  const now = makesAt[r0]!
  const snapsNext = curve[0]?.snaps ?? 0
  return {
    ...advise(q, gainMinor, now, snapsNext, curve),
    makesContactNow: now,
    snapsNext,
    gainMinor,
    strokesLeft: curve.length,
    ends: {
      pushedMinor: Math.max(stopAt[r0]!, first),
      lostMinor: lost,
      leftMinor: stopAt[r0]!,
    },
    curve,
  }
}

/** Whether a single stroke, and then stopping, is already worth more than stopping now: then pushing on is as well. */
export function oneStrokePays(q: PushQuestion, beam: Beam = benchBeam): boolean {
  const worth = (residualMm: number) =>
    q.shortStands && residualMm > STILL_TOUCHES * q.residualMm
      ? 0
      : q.worthMinor * (q.runsLost + makes(q, residualMm, beam) * (q.runsGood - q.runsLost))
  const lost = q.worthMinor * q.runsLost - q.lossMinor
  const from = step(q.residualMm) * STEP_MM
  if (from === 0) return false
  let then = -q.strokeMinor
  for (const [share, odds] of leftOver) {
    const after = q.lifeUsed + strokeLife(q, from, from * share, beam)
    const snaps = losesIt(q, q.lifeUsed, after)
    then += odds * ((1 - snaps) * worth(step(from * share) * STEP_MM) + snaps * lost)
  }
  return then > worth(from)
}

/** Stroke after stroke with the usual share left over, until it is as near as can be seen. */
function strokesAhead(
  q: PushQuestion,
  makesAt: Float64Array,
  stopAt: Float64Array,
  lost: number,
  beam: Beam,
): NextStroke[] {
  const usual = leftOver.reduce((sum, [share, odds]) => sum + Math.abs(share) * odds, 0)
  const curve: NextStroke[] = []
  let residualMm = q.residualMm
  let life = q.lifeUsed
  let held = 1
  while (residualMm > SEEN_MM && curve.length < HORIZON) {
    const left = residualMm * usual
    const after = life + strokeLife(q, residualMm, left, beam)
    const snaps = losesIt(q, life, after)
    held *= 1 - snaps
    const gainMinor =
      (1 - snaps) * stopAt[step(left)]! + snaps * lost - q.strokeMinor - stopAt[step(residualMm)]!
    curve.push({
      stroke: curve.length + 1,
      residualMm: left,
      makesContact: makesAt[step(left)]!,
      snaps,
      lostByThen: 1 - held,
      gainMinor,
    })
    residualMm = left
    life = after
  }
  return curve
}

function advise(
  q: PushQuestion,
  gainMinor: number,
  now: number,
  snapsNext: number,
  curve: readonly NextStroke[],
): Pick<PushAdvice, 'advice' | 'why'> {
  const then = curve[0]?.makesContact ?? now
  if (q.shortStands)
    return {
      advice: 'part',
      why: `it ${q.shortStands === 'surely' ? 'joins' : 'may join'} what must not be joined, and left so the board may not be powered: separate it first; one more stroke loses it in ${percent(snapsNext)}`,
    }
  if (curve.length === 0) return { advice: 'test', why: 'it stands as near its place as can be seen' }
  if (gainMinor > 0)
    return {
      advice: 'push',
      why: `one more stroke takes its odds of contact from ${percent(now)} to about ${percent(then)} and loses it in ${percent(snapsNext)}`,
    }
  if (now >= 0.9)
    return {
      advice: 'test',
      why: `it makes contact in ${percent(now)} as it is; another stroke loses it in ${percent(snapsNext)}: try the board first`,
    }
  if (q.runsGood - q.runsLost < 0.03)
    return {
      advice: 'stop',
      why: `the board hardly needs it; another stroke loses it in ${percent(snapsNext)} and gains next to nothing`,
    }
  return {
    advice: 'stop',
    why: `another stroke loses it in ${percent(snapsNext)}, which costs more than it can gain`,
  }
}
