import { assess } from '../damage/assess'
import type { BenchFigures } from './bench-figures'
import type { Assessment } from '../damage/assess'
import { bladeChannels, pinLines } from '../seat/blade-channels'
import type { BladeChannel, PinLine } from '../seat/blade-channels'
import { clusters } from '../damage/cluster'
import { benchBeam } from '../contact/contact-force'
import { goodOrLost } from '../damage/each-contact'
import { bestFit } from '../seat/insertion'
import type { Fit, PinAndHole } from '../seat/insertion'
import type { Cluster } from '../damage/cluster'
import { isDamage, isGone, leanSizeMm, usualHeightMm, usualLeanMm } from '../damage/mark'
import type { Mark, Marks } from '../damage/mark'
import { afterPlan, leaveAsTheyAre, plan } from './plan'
import type { Plan, School } from './plan'
import { lifeSoFar, offsetOf, oneStrokePays, pushAdvice } from './push'
import type { PushAdvice, PushQuestion } from './push'
import { worthGivingBack } from '../replace/replacement'
import type { GivenBack } from '../replace/replacement'
import { forbidPower, possibleShorts } from '../damage/closing-shorts'
import { touchesNobodyNamed } from '../damage/short'
import { FOLD_PITCHES, handOdds, snapFactor } from './technique'
import type { SnapFactors } from './technique'
import type { Socket } from '../model/socket'
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
  /** What each contact was when it was first seen, and what strokes are weighed by. */
  readonly first?: Marks
  readonly worth?: Worth
}

/** Assessment, order of work and outlook of one field; about 100 ms for 1,700 contacts with 60 damaged. */
export function reckon(socket: Socket, asked: ToReckon): Reckoning {
  const { marks, looked, looks, straightened } = asked
  const seen = new Set(looked)
  const planned = orderOfWork(socket, asked)
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

/** What a stroke is weighed by; money in minor units. */
export interface Worth {
  readonly worthMinor: number
  readonly strokeMinor: number
  readonly lossMinor: number
  /** What a board that runs with a function lost is worth of a whole one. */
  readonly withALoss: number
}

export interface ToWeigh extends Worth {
  readonly marks: Marks
  readonly contact: string
  readonly technique: Technique
  /** What it was when it was first seen, and how many strokes it has had. */
  readonly first: Mark
  readonly strokes: number
  readonly factors?: SnapFactors
}

/** Share of the board's worth: all of it with nothing lost, less where it runs with a channel, a slot or a picture gone. */
export const worthShare = ({ runs, whole }: Pick<Assessment, 'runs' | 'whole'>, withALoss: number) =>
  withALoss * runs + (1 - withALoss) * Math.min(runs, whole)

/** Draws by which contacts are weighed. */
const WEIGHED_BY = 1000

/** One more stroke at a contact or not: the board's odds with it good and with it lost, and what lies between. */
export function weigh(socket: Socket, w: ToWeigh): PushAdvice {
  const planned = plan(socket, w.marks, 'A', {}, {}, w.factors)
  const [question] = pushQuestions(socket, planned, w.marks, w, w.factors, [w])
  return pushAdvice(question!)
}

type Weighed = Pick<ToWeigh, 'contact' | 'technique' | 'first' | 'strokes'>

/**
 * What is asked of each stroke. The rest of the order is taken to go as it usually goes, and what nobody has looked at
 * to be well: neither a short elsewhere nor what is not known must make a contact worthless.
 */
function pushQuestions(
  socket: Socket,
  planned: Plan,
  marks: Marks,
  { worthMinor, strokeMinor, lossMinor, withALoss }: Worth,
  factors: SnapFactors | undefined,
  weighed: readonly Weighed[],
): PushQuestion[] {
  const after = afterPlan(planned, marks)
  const names = weighed.map((w) => w.contact)
  const others = { ...after.marks }
  for (const name of names) delete others[name]
  const each = goodOrLost(socket, others, { mayBeGone: after.mayBeGone, draws: WEIGHED_BY }, names)
  const forbidden = forbidPower(socket, marks)
  const sure = new Set(possibleShorts(socket, marks).flatMap((s) => (s.odds >= 0.999 ? [s.a, s.b] : [])))
  return weighed.map(({ contact, technique, first, strokes }) => {
    const mark = marks[contact] ?? { kind: 'intact' }
    const ends = each.get(contact)!
    const lost = worthShare(ends.lost, withALoss)
    const { offsetMm, isHeight } = offsetOf(mark)
    const foldMm = mark.kind === 'folded' ? FOLD_PITCHES * socket.pitchMm : undefined
    return {
      kind: socket.kind,
      technique,
      residualMm: foldMm ?? offsetMm,
      isHeight,
      ...(foldMm === undefined ? { leanMm: leanSizeMm(mark), heightMm: usualHeightMm(mark) } : { foldMm }),
      slip: handOdds(technique, mark),
      ...(touchesNobodyNamed(mark, socket) || forbidden.has(contact)
        ? { shortStands: sure.has(contact) ? ('surely' as const) : ('perhaps' as const) }
        : {}),
      lifeUsed: lifeSoFar(first, strokes, socket.pitchMm),
      runsGood: Math.max(worthShare(ends.good, withALoss), lost),
      runsLost: lost,
      worthMinor,
      strokeMinor,
      lossMinor,
      snapFactor: factors ? snapFactor(factors, technique, mark.kind) : 1,
    }
  })
}

/** What the order of work is made from. */
export type ToOrder = Pick<
  ToReckon,
  'marks' | 'looked' | 'first' | 'school' | 'left' | 'strokes' | 'factors' | 'worth'
>

/**
 * The order of work: what is planned, less the contacts that are not worth another stroke; those are left, with the
 * reason. One that others wait for is worked all the same.
 */
export function orderOfWork(socket: Socket, o: ToOrder): Plan {
  const planned = plan(socket, o.marks, o.school, o.left, o.strokes, o.factors)
  if (!o.worth) return planned
  const weighed = planned.steps.flatMap(({ contact, technique }): Weighed[] =>
    technique === 'leave' || technique === 'look' || technique === 'replace'
      ? []
      : [
          {
            contact,
            technique,
            first: o.first?.[contact] ?? o.marks[contact]!,
            strokes: o.strokes[contact] ?? 0,
          },
        ],
  )
  const questions = pushQuestions(socket, planned, o.marks, o.worth, o.factors, weighed)
  const why = new Map<string, string>()
  questions.forEach((q, i) => {
    if (q.shortStands || oneStrokePays(q)) return
    const advice = pushAdvice(q)
    if (advice.advice !== 'push') why.set(weighed[i]!.contact, advice.why)
  })
  return leaveAsTheyAre(planned, why)
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
