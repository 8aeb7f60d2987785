import { assess } from './assess'
import type { BenchFigures } from './bench-figures'
import type { Assessment } from './assess'
import { bladeChannels, pinLines } from './blade-channels'
import type { BladeChannel, PinLine } from './blade-channels'
import { clusters } from './cluster'
import { benchBeam } from './contact-force'
import { bestFit } from './insertion'
import type { Fit, PinAndHole } from './insertion'
import type { Cluster } from './cluster'
import { isDamage, isGone, leanSizeMm, usualHeightMm, usualLeanMm } from './mark'
import type { Mark, Marks } from './mark'
import { afterPlan, plan } from './plan'
import type { Plan, School } from './plan'
import { lifeSoFar, offsetOf, pushAdvice } from './push'
import type { PushAdvice } from './push'
import { worthGivingBack } from './replacement'
import type { GivenBack } from './replacement'
import { shorts, touchesNobodyNamed } from './short'
import { FOLD_PITCHES, handOdds, snapFactor } from './technique'
import type { SnapFactors } from './technique'
import type { Socket } from './socket'
import type { Technique } from './technique'

/** What the socket surface asks for after each mark. */
export interface Reckoning {
  readonly now: Assessment
  readonly planned: Plan
  /** The field once the plan went through, with the odds of what may snap on the way. */
  readonly then: Assessment
  readonly clusters: readonly Cluster[]
  /** Pin-grid only: does it drop in, which lines are out, and the channels to run a blade along. */
  readonly pins: PinField | null
}

export interface PinField {
  readonly fit: Fit
  readonly lines: readonly PinLine[]
  readonly channels: readonly BladeChannel[]
}

export interface ToReckon {
  readonly marks: Marks
  readonly looked: readonly string[]
  /** Passes over the whole field so far, and contacts straightened and noted as there. */
  readonly looks?: number
  readonly straightened?: readonly string[]
  readonly school: School
  readonly left: Readonly<Record<string, string>>
  readonly strokes: Readonly<Record<string, number>>
  /** The shop's own record of what snaps. */
  readonly factors?: SnapFactors
}

/** Assessment, order of work and outlook of one field; about 100 ms for 1,700 contacts with 60 damaged. */
export function reckon(
  socket: Socket,
  { marks, looked, looks, straightened, school, left, strokes, factors }: ToReckon,
): Reckoning {
  const seen = new Set(looked)
  const planned = plan(socket, marks, school, left, strokes, factors)
  const after = afterPlan(planned, marks)
  return {
    now: assess(socket, marks, { looked: seen, looks, straightened }),
    planned,
    then: assess(socket, after.marks, { looked: seen, looks, straightened, mayBeGone: after.mayBeGone }),
    clusters: clusters(socket, marks),
    pins: socket.kind === 'pin-grid' ? pinField(socket, marks) : null,
  }
}

/** How the pins stand together. Those that lie flat or are gone are left out of the fit: they are dealt with first. */
function pinField(socket: Socket, marks: Marks): PinField {
  const standing = socket.contacts.flatMap((c): PinAndHole[] => {
    const mark = marks[c.name]
    if (mark && isGone(mark)) return []
    const [dx, dy] = mark && isDamage(mark) ? usualLeanMm(mark) : [0, 0]
    return [{ name: c.name, hole: [c.xMm, c.yMm], pin: [c.xMm + dx, c.yMm + dy] }]
  })
  return {
    fit: bestFit(standing, benchBeam.holeCatchMm),
    lines: pinLines(socket, marks),
    channels: bladeChannels(socket, marks),
  }
}

export interface ToWeigh {
  readonly marks: Marks
  readonly looked: readonly string[]
  readonly contact: string
  readonly technique: Technique
  /** What it was when it was first seen, and how many strokes it has had. */
  readonly first: Mark
  readonly strokes: number
  readonly worthMinor: number
  readonly strokeMinor: number
  readonly lossMinor: number
  /** What a board that runs with a function lost is worth of a whole one. */
  readonly withALoss: number
  readonly factors?: SnapFactors
}

/** Share of the board's worth: all of it with nothing lost, less where it runs with a channel, a slot or a picture gone. */
export const worthShare = ({ runs, whole }: Assessment, withALoss: number) =>
  withALoss * runs + (1 - withALoss) * Math.min(runs, whole)

/**
 * One more stroke at a contact or not: the board's odds with it good and with it lost, and what lies between. The rest
 * of the order is taken to go as it usually goes, since a short elsewhere must not make this contact worthless.
 */
export function weigh(socket: Socket, w: ToWeigh): PushAdvice {
  const mark = w.marks[w.contact] ?? { kind: 'intact' }
  const after = afterPlan(plan(socket, w.marks, 'A', {}, {}, w.factors), w.marks)
  const { [w.contact]: _, ...others } = after.marks
  const { [w.contact]: __, ...mayBeGone } = after.mayBeGone
  const looked = new Set([...w.looked, w.contact])
  // The same seed on both sides: what differs is this contact and nothing else.
  const seen = { looked, mayBeGone, draws: 1000 }
  const good = worthShare(assess(socket, others, seen), w.withALoss)
  const lost = worthShare(assess(socket, { ...others, [w.contact]: { kind: 'snapped' } }, seen), w.withALoss)
  const { offsetMm, isHeight } = offsetOf(mark)
  const foldMm = mark.kind === 'folded' ? FOLD_PITCHES * socket.pitchMm : undefined
  const shortStands =
    touchesNobodyNamed(mark, socket) ||
    shorts(socket, w.marks).some(
      (s) => (s.a === w.contact || s.b === w.contact) && s.grade !== 'harmless' && s.odds > 0.5,
    )
  return pushAdvice({
    kind: socket.kind,
    technique: w.technique,
    residualMm: foldMm ?? offsetMm,
    isHeight,
    ...(foldMm === undefined ? { leanMm: leanSizeMm(mark), heightMm: usualHeightMm(mark) } : { foldMm }),
    slip: handOdds(w.technique, mark),
    shortStands,
    lifeUsed: lifeSoFar(w.first, w.strokes, socket.pitchMm),
    runsGood: Math.max(good, lost),
    runsLost: lost,
    worthMinor: w.worthMinor,
    strokeMinor: w.strokeMinor,
    lossMinor: w.lossMinor,
    snapFactor: w.factors ? snapFactor(w.factors, w.technique, mark.kind) : 1,
  })
}

export interface ToGiveBack {
  readonly marks: Marks
  readonly looked: readonly string[]
  readonly boardMinor: number
  readonly figures: BenchFigures
  readonly factors?: SnapFactors
}

/** Contacts beyond this many are not told apart one by one: then it is a whole socket. */
export const MOST_ONE_BY_ONE = 10

/** Which contacts that are gone are worth giving back, the rest of the order taken to go as it usually goes. */
export function giveBack(
  socket: Socket,
  { marks, looked, boardMinor, figures, factors }: ToGiveBack,
): GivenBack[] {
  const gone = socket.contacts.flatMap((c) => {
    const mark = marks[c.name]
    return mark && !mark.unsure && (mark.kind === 'snapped' || mark.kind === 'tip gone')
      ? [{ contact: c.name, stub: mark.kind === 'tip gone' }]
      : []
  })
  if (gone.length > MOST_ONE_BY_ONE) return []
  const { marks: after, mayBeGone } = afterPlan(plan(socket, marks, 'A', {}, {}, factors), marks)
  const worthWith = (back: readonly string[]) => {
    const left = { ...after }
    for (const name of back) delete left[name]
    const seen = { looked: new Set([...looked, ...back]), mayBeGone, draws: 500 }
    return worthShare(assess(socket, left, seen), figures.withALoss)
  }
  return worthGivingBack(gone, worthWith, boardMinor, figures)
}
