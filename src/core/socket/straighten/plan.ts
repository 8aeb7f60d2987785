import { liesAcross, severity } from '../damage/across'
import { clusters } from '../damage/cluster'
import { functionLaw, parallelState } from '../contact/function-law'
import { isDamage, isGone } from '../damage/mark'
import type { Mark, Marks } from '../damage/mark'
import { fieldOf } from '../model/socket'
import type { SnapFactors } from './technique'
import type { Contact, Socket } from '../model/socket'
import type { FunctionGroup } from '../../board/function-group'
import { handlingOf } from './technique'
import type { Handling } from './technique'

/** School A: easy ones first, the worst last. School B: the worst while the eye is fresh. */
export type School = 'A' | 'B'

/** One thing to do at one contact. */
export interface Step extends Omit<Handling, 'blockedBy'> {
  /** Contacts that lie across this one and are done before it. */
  readonly after: readonly string[]
  /** What then, if it snaps. */
  readonly ifLost: string
  /** It is left as not worth a stroke; this is how it would be worked all the same. */
  readonly otherwise?: Step
}

export interface Plan {
  readonly steps: readonly Step[]
  readonly minutes: number
  /** Chance that at least one contact is lost on the way. */
  readonly anySnaps: number
}

/**
 * An order of straightening.
 *
 * Precedence first: whoever lies across another goes before it; then whoever stands raised in another's tool corridor.
 * A ring of contacts that lie across one another is cut where the next choice falls. Within what is free, what frees
 * others goes first, school A takes the least snap odds and the least out of place first (so a crater is worked from
 * its rim inward) and school B the most, large clusters come before strays, near neighbours and one tool are kept
 * together; what is left or needs a donor comes last.
 *
 * @param left contacts the technician has decided to leave, with the reason
 * @param strokesBefore strokes each contact has had
 * @param factors on the odds of losing one, from the shop's own record
 */
export function plan(
  socket: Socket,
  marks: Marks,
  school: School = 'A',
  left: Readonly<Record<string, string>> = {},
  strokesBefore: Readonly<Record<string, number>> = {},
  factors: SnapFactors = {},
): Plan {
  const { named, totals } = fieldOf(socket)
  const todo = Object.entries(marks).flatMap(([name, mark]) => {
    const contact = named.get(name)
    return contact && isDamage(mark) && mark.kind !== 'scuffed' ? [{ contact, mark }] : []
  })
  const gone = new Map<FunctionGroup, number>()
  for (const { contact, mark } of todo)
    if (isGone(mark)) gone.set(contact.group, (gone.get(contact.group) ?? 0) + 1)

  const across = liesAcross(socket, marks)
  const over = new Map<string, string[]>()
  for (const [name, unders] of across)
    for (const under of unders) over.set(under, [...(over.get(under) ?? []), name])

  const together = new Map(
    clusters(socket, marks).flatMap((c) => c.names.map((n) => [n, c.names.length] as const)),
  )

  const handlings = new Map<string, Handling>()
  for (const { contact, mark } of todo) {
    const handling = handlingOf(socket, contact, mark, marks, strokesBefore[contact.name], factors)
    const reason = left[contact.name] ?? leaveReason(contact, mark, gone, totals)
    handlings.set(contact.name, reason === null ? handling : leaving(handling, reason))
  }

  const steps: Step[] = []
  const open = new Set(handlings.keys())
  const waits = (names: readonly string[] | undefined) => names?.some((name) => open.has(name)) ?? false
  let at: Contact | null = null
  while (open.size > 0) {
    const free = [...open].filter((name) => !waits(over.get(name)))
    const clear = free.filter((name) => !waits(handlings.get(name)!.blockedBy))
    const pool = clear.length > 0 ? clear : free.length > 0 ? free : [...open]
    let best = pool[0]!
    let bestCost = Infinity
    for (const name of pool) {
      const handling = handlings.get(name)!
      const contact = named.get(name)!
      const travel = at ? Math.hypot(at.xMm - contact.xMm, at.yMm - contact.yMm) : 0
      const late = handling.technique === 'leave' ? 100 : handling.technique === 'replace' ? 50 : 0
      const cost =
        late -
        (across.has(name) ? 2 : 0) +
        Math.round(handling.snaps * 40) * (school === 'A' ? 1 : -1) +
        severity(marks[name]!) * (school === 'A' ? 4 : -4) -
        (together.get(name) ?? 1) * 0.03 +
        travel * 0.05 +
        (steps.at(-1)?.tool === handling.tool ? 0 : 0.2)
      if (cost < bestCost || (cost === bestCost && name < best)) {
        best = name
        bestCost = cost
      }
    }
    const { blockedBy: _, ...handling } = handlings.get(best)!
    steps.push({ ...handling, after: over.get(best) ?? [], ifLost: ifLost(named.get(best)!, gone, totals) })
    open.delete(best)
    if (handling.technique !== 'leave') at = named.get(best)!
  }
  return planOf(steps)
}

const planOf = (steps: readonly Step[]): Plan => ({
  steps,
  minutes: steps.reduce((sum, step) => sum + step.minutes, 0),
  anySnaps: 1 - steps.reduce((all, step) => all * (1 - step.snaps), 1),
})

/**
 * A plan with some contacts left as they are, each for its reason; they come last. One that lies across another which
 * is worked is worked as well.
 */
export function leaveAsTheyAre(planned: Plan, why: ReadonlyMap<string, string>): Plan {
  const awaited = new Set(planned.steps.flatMap((s) => (why.has(s.contact) ? [] : s.after)))
  const isLeft = (s: Step) => why.has(s.contact) && !awaited.has(s.contact)
  if (!planned.steps.some(isLeft)) return planned
  const worked = planned.steps.filter((s) => !isLeft(s))
  const left = planned.steps
    .filter(isLeft)
    .map((s): Step => ({ ...leaving(s, why.get(s.contact)!), after: [], otherwise: s }))
  const at = worked.findIndex((s) => s.technique === 'leave')
  const place = at < 0 ? worked.length : at
  return planOf([...worked.slice(0, place), ...left, ...worked.slice(place)])
}

const leaving = <H extends Omit<Handling, 'blockedBy'>>(handling: H, reason: string) => ({
  ...handling,
  technique: 'leave' as const,
  tool: 'nothing' as const,
  from: null,
  say: `leave: ${reason}`,
  strokes: 0,
  snaps: 0,
  snapFactor: 1,
  overTravelMm: 0,
  minutes: 0,
  blockedBy: [] as readonly string[],
})

/** Why a contact may be left as it is, or null. */
function leaveReason(
  contact: Contact,
  mark: Mark,
  gone: ReadonlyMap<FunctionGroup, number>,
  totals: ReadonlyMap<FunctionGroup, number>,
): string | null {
  if (mark.kind !== 'snapped' && mark.kind !== 'tip gone') return null
  const law = functionLaw[contact.group]
  const of = totals.get(contact.group) ?? 0
  if (law.kind === 'parallel' && parallelState(law, of, gone.get(contact.group) ?? 0) === 'whole')
    return `one of ${of} ${contact.group === 'ground' ? 'grounds' : `${contact.group} contacts`}`
  if (contact.group === 'reserved' && contact.trust !== 'none')
    return `listed as reserved (${contact.trust} table)`
  return null
}

/** What follows if one more of its kind is lost. */
function ifLost(
  contact: Contact,
  gone: ReadonlyMap<FunctionGroup, number>,
  totals: ReadonlyMap<FunctionGroup, number>,
): string {
  const law = functionLaw[contact.group]
  const of = totals.get(contact.group) ?? 0
  const then = parallelState(law, of, (gone.get(contact.group) ?? 0) + 1)
  if (law.kind === 'parallel')
    return then === 'whole'
      ? `one of ${of}: it can be left`
      : `one of ${of}, and too many would be gone: ${law.symptom}`
  if (law.kind === 'none')
    return contact.group === 'reserved'
      ? 'listed as reserved: it can be left'
      : 'what it does is not known: transplant, or try the board without it'
  return `${law.symptom}: raise the stub or transplant`
}

/** How the field stands when the plan went through, and the chance for each contact that it was lost on the way. */
export function afterPlan(
  planned: Plan,
  marks: Marks,
): { readonly marks: Marks; readonly mayBeGone: Readonly<Record<string, number>> } {
  const after: Record<string, Mark> = { ...marks }
  const mayBeGone: Record<string, number> = {}
  for (const step of planned.steps) {
    if (step.technique === 'leave' || step.technique === 'look' || step.technique === 'replace') continue
    after[step.contact] = { kind: 'intact' }
    if (step.snaps > 0) mayBeGone[step.contact] = step.snaps
  }
  return { marks: after, mayBeGone }
}
