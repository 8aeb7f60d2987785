import { shelfItems } from '../../board/shelf-items'
import type { ShelfItem } from '../../board/shelf-items'
import type { HistoryItem } from '../../board/history-item'
import type { BenchTest } from '../model/bench-test'
import { isPicture } from '../../board/baseline'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import type { FaultOdds } from '../model/fault-table'
import { readAs, testsOf } from '../model/shows'
import type { Shown } from '../model/shows'
import type { UnknownStage } from '../model/start-model'
import { nextTests, repairMove, toConfirm, verdict, WORTH_BITS } from './next-test'
import type { Choosing, RepairMove, Suggestion, Verdict } from './next-test'
import {
  faultOdds,
  expected,
  posterior,
  priorOdds,
  standing,
  unknownOdds,
  withMends,
  withoutEach,
} from './odds'
import { hypotheses, testOf, UNKNOWN, unknownStages } from './hypotheses'
import { doneNow, likelihood, seenNow } from './likelihood'
import type { Change } from '../model/repair'
import type { Evidence } from './likelihood'

/** What one piece of evidence did to a fault, bits: above zero for it, below against it. */
export interface Reason {
  readonly test: string
  readonly outcome: string
  readonly bits: number
}

export interface FaultBelief {
  readonly fault: FaultId
  readonly say: string
  readonly odds: number
  /** The odds it had before the last evidence. */
  readonly before: number
  /** Strongest first. */
  readonly reasons: readonly Reason[]
}

/** One way the board may stand: no fault, one, or two at once. Ways exclude each other, so their odds sum to one. */
export interface Cause {
  readonly faults: readonly FaultId[]
  readonly say: string
  readonly odds: number
  /** The odds it had before the last evidence. */
  readonly before: number
}

/** A suggestion without the model behind it, so that it can be handed from a worker. */
export type NextTest = Omit<Suggestion, 'test'> & { readonly test: Omit<BenchTest, 'odds'> }

export interface Belief {
  /** Likeliest first, those below one in a hundred left out. */
  readonly faults: readonly FaultBelief[]
  /** The likeliest ways it may stand, likeliest first; what they lack to one is `otherwise`. */
  readonly causes: readonly Cause[]
  /** Something in no list, and every way that is not among `causes`. */
  readonly otherwise: { readonly odds: number; readonly before: number }
  /** Chance that two are there at once. */
  readonly two: number
  /** Chance that it is something in no list, and the stage at which that would stop it. */
  readonly somethingElse: number
  readonly unknownAt: { readonly stage: UnknownStage; readonly odds: number }
  readonly verdict: Verdict | null
  /** What the last evidence was. */
  readonly last: Reason | null
  /** Tests that something is known of, each once. */
  readonly made: readonly string[]
  /** Evidence that nothing likely explains, with its chance all the same. Look again before believing it. */
  readonly unexplained: readonly { readonly test: string; readonly outcome: string; readonly odds: number }[]
  readonly next: readonly NextTest[]
  /** What each thing that is not at hand would show, the most telling first. */
  readonly lacking: readonly Lacking[]
  /** The odds are not settled, and no test left would tell enough to be worth its minutes. */
  readonly notWorthMore: boolean
  /** The repair that is worth more than the next test, as odds and minutes have it; null where a test is. */
  readonly repair: RepairMove | null
  /** The fault that is repaired next if the first test, a reading taken once, says the same once more. */
  readonly confirms: FaultId | null
  /** Chance of a picture at the next power-up of the board as it stands. */
  readonly picture: number
}

/** A test that cannot be made for want of something, and what it would do for the doubt there is. */
export interface Lacking {
  readonly item: ShelfItem
  readonly say: string
  readonly minutes: number
  /** Bits. */
  readonly tells: number
  readonly settles: number
}

/** What the odds follow from. */
export interface Known {
  readonly history: readonly HistoryItem[]
  readonly evidence: readonly Evidence[]
  /** What was done to the board that faults hang on, in order. */
  readonly changes?: readonly Change[]
  /** Faults that were mended when the board was here before. */
  readonly again?: readonly FaultId[]
  /** The shop's own odds of faults, instead of the bench defaults. */
  readonly own?: FaultOdds
  /** What the board can show; anything when left out. */
  readonly shown?: Shown
}

export interface ToBelieve extends Known {
  readonly mayPower: boolean
  /** What the shelf holds; everything when left out. */
  readonly shelf?: readonly ShelfItem[]
  /** A test that comes before those that tell most: looked at and measured comes before powered. */
  readonly due?: string
  /** The test that the next power-up is, by what is in the board; as it came when left out. */
  readonly start?: string
}

const WORTH_SAYING = 0.01
/** Least a test must tell for it to be said that something is wanting for it, bits (bench default). */
const WORTH_FETCHING = 0.1
/** Share of an even chance below which evidence counts as unexplained (bench default). */
const UNEXPLAINED = 0.3
const bits = (p: number) => Math.log2(Math.max(p, 1e-9) / Math.max(1 - p, 1e-9))

/** The odds of every way the board may stand: as all that was seen leaves them, and as it stands now. */
export function oddsFrom({
  history,
  evidence: noted,
  changes = [],
  again = [],
  own = {},
  shown = {},
}: Known) {
  const evidence = noted.map((e) => readAs(e, shown))
  const prior = withMends(priorOdds(history, again, own), changes)
  const all = posterior(prior, evidence, changes)
  return { evidence, all, now: standing(all, changes) }
}

/** One way the board may stand: the faults that are there. */
export interface Way {
  readonly faults: readonly FaultId[]
  readonly odds: number
}

/** Every way the board may stand that is in the list; what their odds lack to one is something in no list. */
export const everyWay = (known: Known): Way[] => {
  const { now } = oddsFrom(known)
  return hypotheses.flatMap((faults, h) => (now[h]! > 0 ? [{ faults, odds: now[h]! }] : []))
}

/** The odds with their reasons, the verdict if there is one, and which test next. */
export function believe(asked: ToBelieve): Belief {
  const { changes = [], mayPower, shelf, shown: canShow = {}, due, start = AGAIN } = asked
  const { evidence, all, now } = oddsFrom(asked)
  const each = faultOdds(now)
  // What each piece did: the odds with it against the odds without it.
  const withoutOne = withoutEach(all, evidence, changes)
  const eachWithout = withoutOne.map(faultOdds)
  const last = eachWithout.at(-1) ?? each
  const shown = [...faultIds.keys()]
    .filter((i) => each[i]! >= WORTH_SAYING || last[i]! >= 0.1)
    .sort((a, b) => each[b]! - each[a]!)
    .slice(0, 10)
  const said = evidence.at(-1)
  const done = doneNow(evidence, changes)
  const worked = changes.some((c) => c.is === 'mended' || c.is === 'made')
  // After a mend nothing is settled until it was started again.
  const powerUp = worked && ![...done].some((test) => testOf(test).byStage)
  const settled = powerUp ? null : verdict(now)
  const tests = testsOf(canShow)
  const choosing = {
    done,
    tests,
    mayPower,
    seen: seenNow(evidence, changes),
    ...(shelf ? { shelf: new Set(shelf) } : {}),
  }
  const found = settled?.is === 'found' ? settled.fault : null
  const confirmed = found === null ? null : toConfirm(now, found, choosing)
  const sure = confirmed === null ? settled : null
  const suggested = sure ? [] : nextTests(now, choosing)
  const repair = settled || due !== undefined || powerUp ? null : repairMove(now, suggested)
  const confirm = confirmed ?? (repair && toConfirm(now, repair.fault, choosing))
  const first = due ?? (powerUp && mayPower ? AGAIN : undefined) ?? confirm ?? undefined
  return {
    faults: shown.map((i) => ({
      fault: faultIds[i]!,
      say: faults[faultIds[i]!].say,
      odds: each[i]!,
      before: last[i]!,
      reasons: evidence
        .map(({ test, outcome }, k) => ({
          test: testOf(test).say,
          outcome,
          bits: bits(each[i]!) - bits(eachWithout[k]![i]!),
        }))
        .filter((r) => Math.abs(r.bits) >= 0.15)
        .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits)),
    })),
    ...causesOf(now, withoutOne.at(-1) ?? now),
    picture: pictureOdds(now, tests.find((t) => t.id === start) ?? testOf(start)),
    two: now.reduce((sum, p, h) => (hypotheses[h]?.length === 2 ? sum + p : sum), 0),
    somethingElse: unknownOdds(now),
    unknownAt: likeliestUnknown(now),
    verdict: sure,
    last: said ? { test: testOf(said.test).say, outcome: said.outcome, bits: 0 } : null,
    made: [...new Set(evidence.map((e) => e.test))],
    unexplained: expected(all, evidence, changes).flatMap((odds, i) => {
      const { test, outcome } = evidence[i]!
      const { say, outcomes } = testOf(test)
      return odds * outcomes.length < UNEXPLAINED ? [{ test: say, outcome, odds }] : []
    }),
    repair: first === undefined ? repair : null,
    confirms: first !== undefined && first === confirm ? (found ?? repair!.fault) : null,
    lacking: sure || !shelf ? [] : lackingOf(now, choosing, new Set(shelf)),
    notWorthMore: !sure && first === undefined && (suggested[0]?.tells ?? 0) < WORTH_BITS,
    next: (first === undefined
      ? suggested
      : [
          dueTest(first, now, suggested, tests, first === confirm),
          ...suggested.filter((s) => s.test.id !== first),
        ]
    )
      .slice(0, 5)
      .map(({ test: { odds: _, ...test }, ...rest }) => ({ test, ...rest })),
  }
}

/** Of each thing that is not at hand the test that would tell most a minute, everything else it needs being there. */
function lackingOf(now: Float64Array, choosing: Choosing, shelf: ReadonlySet<ShelfItem>): Lacking[] {
  const missing = shelfItems.filter((item) => !shelf.has(item))
  const { shelf: _, tests = [], ...rest } = choosing
  return missing
    .flatMap((item): Lacking[] => {
      const withIt = tests.filter(
        (t) => t.needs.includes(item) && t.needs.every((needed) => needed === item || shelf.has(needed)),
      )
      const [best] = nextTests(now, { ...rest, tests: withIt, deep: 0 })
      return best && best.tells >= WORTH_FETCHING
        ? [{ item, say: best.test.say, minutes: best.test.minutes, tells: best.tells, settles: best.settles }]
        : []
    })
    .sort((a, b) => b.tells - a.tells)
}

/** Chance that a test ends with a picture. */
const pictureOdds = (now: Float64Array, test: BenchTest): number =>
  Math.min(
    1,
    likelihood(test).reduce(
      (sum, row, o) =>
        isPicture(test.outcomes[o]!) ? sum + row.reduce((all, p, h) => all + p * now[h]!, 0) : sum,
      0,
    ),
  )

const MOST_CAUSES = 6

/** The likeliest ways the board may stand, and what is left of one; before and after the last evidence. */
function causesOf(now: Float64Array, before: Float64Array): Pick<Belief, 'causes' | 'otherwise'> {
  const causes = [...hypotheses.keys()]
    .filter((h) => now[h]! >= WORTH_SAYING)
    .sort((a, b) => now[b]! - now[a]!)
    .slice(0, MOST_CAUSES)
    .map((h) => ({
      faults: hypotheses[h]!,
      say: sayCause(hypotheses[h]!),
      odds: now[h]!,
      before: before[h]!,
    }))
  const rest = (of: 'odds' | 'before') => Math.max(0, 1 - causes.reduce((sum, c) => sum + c[of], 0))
  return { causes, otherwise: { odds: rest('odds'), before: rest('before') } }
}

/** The stage at which something in no list stops it most likely. */
function likeliestUnknown(now: Float64Array): Belief['unknownAt'] {
  const odds = now.subarray(UNKNOWN)
  const at = odds.indexOf(Math.max(...odds))
  return { stage: unknownStages[at]!, odds: odds[at]! }
}

const sayCause = (ids: readonly FaultId[]): string =>
  ids.length === 0
    ? 'no fault left'
    : `${ids.length === 2 ? 'two faults: ' : ''}${ids.map((id) => faults[id].say).join(' and ')}`

const AGAIN = 'as it came'

/** A test that is due, whatever else could be told. */
function dueTest(
  id: string,
  now: Float64Array,
  suggested: readonly Suggestion[],
  tests: readonly BenchTest[],
  again: boolean,
): Suggestion {
  const known = suggested.find((s) => s.test.id === id)
  if (known) return known
  const test = tests.find((t) => t.id === id) ?? testOf(id)
  const outcomes = likelihood(test).map((row, o) => ({
    outcome: test.outcomes[o]!,
    odds: row.reduce((sum, p, h) => sum + p * now[h]!, 0),
    points: null,
  }))
  return { test, again, outcomes, tells: 0, settles: 0, riskMinutes: 0, worth: 0 }
}
