import type { FunctionGroup } from '../board/function-group'
import { harmMinutes, voltsOf } from '../board/proved'
import type { Proved } from '../board/proved'
import type { Touched } from '../board/station-says'

/** Chance, for each thing, that it is bad. They are taken to be bad or good independently of one another. */
export type Doubts = ReadonlyMap<Proved, number>
/** Chance, for each thing, that a test shows it when it is bad. */
export type Shows = Readonly<Partial<Record<Proved, number>>>

/** What may be bad of any board that somebody worked on (bench defaults). */
const usual: Shows = {
  starts: 0.04,
  cooling: 0.03,
  'memory A': 0.015,
  'memory B': 0.015,
  system: 0.01,
  'card lanes': 0.008,
  'storage lanes': 0.008,
  ports: 0.008,
  display: 0.005,
  'core power': 0.005,
  control: 0.003,
}
/** What may be bad beside that of what was touched (bench defaults). */
const DAMAGED = 0.05
const INTERMITTENT = 0.3
const JOINTS = 0.06
const VOLTS = 0.05
const VERSION = 0.03
const SETTINGS = 0.05
const EXCHANGED = 0.02

/** What a start that came to a picture shows, whatever it was started for (bench defaults): what is deadly has not failed yet. */
const cameUp: Shows = {
  clock: 0.97,
  reset: 0.97,
  control: 0.8,
  'core power': 0.8,
  ground: 0.8,
  'memory power': 0.8,
  'io power': 0.5,
  starts: 0.5,
  version: 0.5,
}

/** What an exchanged thing puts in doubt. */
const exchanged: Readonly<Record<Touched['exchanged'][number], readonly Proved[]>> = {
  CPU: ['CPU', 'cooling'],
  module: ['memory A', 'memory B'],
  drive: ['storage lanes', 'system'],
  card: ['card lanes'],
}

const carries = (group: FunctionGroup): group is FunctionGroup & Proved =>
  group !== 'reserved' && group !== 'unknown'

/** A new cell and nothing else that was touched or came and went: it owes no hour of load. */
export const onlyTheCell = (t: Touched): boolean =>
  t.cellAlone &&
  t.contacts === 0 &&
  t.groups.length === 0 &&
  t.rails.length === 0 &&
  t.exchanged.length === 0 &&
  t.repaired.every(({ of }) => of === 'settings kept') &&
  t.suspected.every(({ of }) => of === 'settings kept') &&
  !t.firmware &&
  !t.parts &&
  !t.intermittent

/** What may be bad of a board as it stands, from what was damaged, touched, changed, repaired and suspected. */
export function doubtsOf(t: Touched): Doubts {
  const doubts = new Map<Proved, number>(
    (Object.entries(usual) as [Proved, number][]).filter(([what]) => what === 'starts' || !onlyTheCell(t)),
  )
  const add = (what: Proved, odds: number) => doubts.set(what, either(doubts.get(what) ?? 0, odds))
  // A field that is known says what becomes of each group: missed contacts and the doubt of its table are in it.
  for (const [group, odds] of Object.entries(t.lost) as [FunctionGroup, number][])
    if (carries(group)) add(group, odds)
  for (const group of t.groups) {
    if (!carries(group)) add('ports', DAMAGED)
    else if (t.lost[group] === undefined) add(group, DAMAGED)
  }
  if (t.intermittent) add('starts', INTERMITTENT)
  if (t.parts) add('joints', JOINTS)
  for (const rail of t.rails) add(voltsOf(rail), VOLTS)
  if (t.firmware) add('version', VERSION)
  if (t.cell || t.firmware) add('settings kept', SETTINGS)
  for (const thing of t.exchanged) for (const what of exchanged[thing]) add(what, EXCHANGED)
  for (const { of, fails } of t.repaired) add(of, fails)
  const now = t.cameUp ? afterPass(doubts, cameUp) : doubts
  // A picture is in the odds of what is suspected already.
  return new Map([...now, ...suspicions(t, now)])
}

/** What is suspected, on top of other doubts of the same thing. */
function suspicions(t: Touched, doubts: Doubts): Doubts {
  const so = new Map<Proved, number>()
  for (const { of, odds } of t.suspected) so.set(of, either(so.get(of) ?? doubts.get(of) ?? 0, odds))
  return so
}

const either = (a: number, b: number): number => 1 - (1 - a) * (1 - b)

/**
 * The doubts once a test has passed. Bayes: a bad thing passes unseen with 1 − q, so p becomes p·(1 − q) / (1 − p·q). A pass
 * needs every one of them unseen, which is a product, so that they stay independent.
 */
export const afterPass = (doubts: Doubts, shows: Shows): Doubts =>
  new Map(
    [...doubts].map(([what, p]) => {
      const q = shows[what] ?? 0
      return [what, p * q === 1 ? 0 : (p * (1 - q)) / (1 - p * q)]
    }),
  )

/** Chance that a test finds something: 1 − Π (1 − p·q). */
export const findsSomething = (doubts: Doubts, shows: Shows): number =>
  1 - [...doubts].reduce((none, [what, p]) => none * (1 - p * (shows[what] ?? 0)), 1)

/** Chance that anything is bad. */
export const anyBad = (doubts: Doubts): number =>
  1 - [...doubts.values()].reduce((none, p) => none * (1 - p), 1)

/** What a test saves on average, minutes: what would be found at the owner’s is found here. */
const saves = (doubts: Doubts, shows: Shows): number =>
  [...doubts].reduce((sum, [what, p]) => sum + p * (shows[what] ?? 0) * harmMinutes(what), 0)

/** A test as far as its place among others goes. */
export interface Placed {
  readonly id: string
  readonly minutes: number
  readonly shows: Shows
  /** The one that comes before it, where that is made at all. */
  readonly after?: string
  /** Made without power: before any that takes it. */
  readonly unpowered?: true
}

/**
 * Tests in the order in which they save most per minute, each with those that have to come before it. Doubts fall with each
 * pass, so that a second test of one thing is worth less. For things with one test each the order by p·q·harm / minutes is the
 * best there is (Smith’s rule, 1956); where tests overlap, taking the best first is within a factor of four of it (min-sum set
 * cover: Feige, Lovász and Tetali, 2004), and in practice within hundredths.
 * @returns with each the chance that it finds something, those before it having passed
 */
export function inOrder<T extends Placed>(
  tests: readonly T[],
  doubts: Doubts,
): (T & { readonly finds: number })[] {
  const ordered: (T & { finds: number })[] = []
  const open = new Map(tests.map((test) => [test.id, test]))
  let now = doubts
  const chain = (test: T): readonly T[] => {
    const before = test.after === undefined ? undefined : open.get(test.after)
    return before ? [...chain(before), test] : [test]
  }
  const worth = (test: T): number => {
    let [saved, minutes, then] = [0, 0, now]
    for (const one of chain(test)) {
      saved += saves(then, one.shows)
      minutes += one.minutes
      then = afterPass(then, one.shows)
    }
    return saved / minutes
  }
  while (open.size > 0) {
    const all = [...open.values()]
    const cold = all.filter((test) => test.unpowered)
    const among = cold.length > 0 ? cold : all
    const best = among.reduce((a, b) => (worth(b) > worth(a) ? b : a))
    const [next] = chain(best)
    ordered.push({ ...next!, finds: findsSomething(now, next!.shows) })
    now = afterPass(now, next!.shows)
    open.delete(next!.id)
  }
  return ordered
}
