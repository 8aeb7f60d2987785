import type { HistoryItem } from '../../board/history-item'
import { percent } from '../../maths/percent'
import { seeded } from '../../maths/seeded'
import { benchTests } from '../model/bench-tests'
import { sayOutcome } from '../model/outcome-words'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import { changedBy, curedBy, repairOf } from '../model/repair'
import { nextTests, RATHER_REPAIR, riskOf, worthMinutes } from '../reason/next-test'
import type { Choosing } from '../reason/next-test'
import { faultOdds, posterior, priorOdds, standing } from '../reason/odds'
import { testOf } from '../reason/hypotheses'
import { ModelBoard } from '../reason/board-on-bench'
import type { Change } from '../model/repair'
import { asItCounts, doneNow, seenNow } from '../reason/likelihood'
import type { Evidence } from '../reason/likelihood'
import { LIMIT_MINUTES, suggested, workBoard } from '../reason/work-board'

/** One thing done on a practice board. */
export type PracticeStep =
  | {
      readonly do: 'test'
      readonly test: string
      readonly outcome: string
      /** Seen at the same power-up as the one before. */ readonly along?: boolean
      /** False where the gate was shut: then the best test is one without power. */
      readonly mayPower?: boolean
    }
  | { readonly do: 'mend'; readonly fault: FaultId }

/** Bench minutes a step costs; what is seen along the way costs none. */
export const minutesOf = (step: PracticeStep): number =>
  step.do === 'mend' ? repairOf(step.fault).minutes : step.along ? 0 : testOf(step.test).minutes

export interface Practice {
  readonly history: readonly HistoryItem[]
  /** What was wrong. */
  readonly truth: readonly FaultId[]
  readonly seed: number
  readonly steps: readonly PracticeStep[]
  /** How often the best policy works the board. */
  readonly draws?: number
}

export type Judgement = 'best' | 'good' | 'costly' | 'told nothing' | 'risky' | 'sure' | 'a bet' | 'a guess'

export interface StepReview {
  readonly say: string
  readonly judgement: Judgement
  /** Why, and what would have been better. */
  readonly why: string
  readonly minutes: number
}

export interface PracticeScore {
  readonly points: number
  readonly right: boolean
  readonly found: readonly FaultId[]
  readonly missed: readonly FaultId[]
  /** Mended though nothing was wrong with them. */
  readonly needless: readonly FaultId[]
  readonly minutes: number
  /** The best policy on the same board. */
  readonly best: BestPolicy
  readonly review: readonly StepReview[]
  /** For what was left behind: the test that would have shown it. */
  readonly lessons: readonly Lesson[]
}

export interface Lesson {
  readonly fault: FaultId
  readonly test: string
  readonly outcome: string
  /** Chance of that outcome with the fault there. */
  readonly odds: number
}

/** What the best policy takes on a board: minutes, the mean over its draws, and how often it is right. */
export interface BestPolicy {
  readonly minutes: number
  readonly right: number
  readonly draws: number
}

/** Each takes about a second. */
const DRAWS = 5
/** Faults that a power-up makes worse. */
const worseUnderPower: readonly FaultId[] = faultIds.filter(
  (id) => (faults[id] as { rail?: { is: string } }).rail?.is === 'short' || id === 'power contacts shorted',
)
const SHORT_LIKELY = 0.2
/** A short: read at a rail, or how likely one is that nobody has read. */
type Short = number | 'read'
const isLikely = (short: Short): boolean => short === 'read' || short >= SHORT_LIKELY
const RISK_LIKELY = 0.04

/**
 * Scores a practice board against the reasoner's own policy on the same board.
 *
 * Points, 0 to 100: a right end gives 50 and up to 50 more by minutes (best policy's over yours, at most 1); a wrong
 * end gives 30 for the share of faults found and up to 20 for the share of choices that were best, good or sure. Each needless mend and each power-up with a short likely costs 8.
 * Each choice is reviewed at the odds of its moment: its worth (doubt taken away per minute, two steps deep) beside
 * that of the best test then.
 * @param best the best policy on this board, where it is known already
 * @throws RangeError for a test or outcome that is not in the list
 */
export function practiceScore(practice: Practice, best = bestPolicy(practice)): PracticeScore {
  const { history, truth, steps } = practice
  const prior = priorOdds(history)
  const evidence: Evidence[] = []
  const mended: FaultId[] = []
  const changes: Change[] = []
  const cured = new Set<FaultId>()
  const review: StepReview[] = []
  let minutes = 0
  let harms = 0
  for (const step of steps) {
    const counted = asItCounts(evidence)
    const now = standing(posterior(prior, counted, changes), changes)
    if (step.do === 'mend') {
      const odds = faultOdds(now)[faultIds.indexOf(step.fault)]!
      const judgement = odds >= RATHER_REPAIR ? 'sure' : odds >= 0.5 ? 'a bet' : 'a guess'
      const told = `${percent(odds)} by what was seen; it was ${truth.includes(step.fault) ? '' : 'not '}so`
      review.push({
        say: `repaired ${faults[step.fault].say}`,
        judgement,
        why: told,
        minutes: minutesOf(step),
      })
      minutes += minutesOf(step)
      mended.push(step.fault)
      changes.push({ is: 'mended', fault: step.fault })
      continue
    }
    const test = testOf(step.test)
    const each = faultOdds(now)
    const seen = seenNow(counted, changes)
    // What was read at ground is a short until it is read again, however likely a slip is.
    const short: Short = seen.some((e) => e.test.startsWith('ohms ') && e.outcome === 'short')
      ? 'read'
      : worseUnderPower.reduce((p, id) => Math.max(p, each[faultIds.indexOf(id)]!), 0)
    const spent = minutesOf(step)
    if (!step.along) {
      const { judgement, why } = judge(step, now, { done: doneNow(counted, changes), seen }, short)
      if (judgement === 'risky' && test.powers && isLikely(short)) harms++
      review.push({ say: `${test.say}: ${sayOutcome(step.outcome)}`, judgement, why, minutes: spent })
    }
    minutes += spent
    evidence.push({ test: step.test, outcome: step.outcome, after: changes.length })
    changes.push(...changedBy(step.test))
    for (const fault of curedBy(step.test)) cured.add(fault)
  }
  const putRight = (id: FaultId) => mended.includes(id) || cured.has(id)
  const found = truth.filter(putRight)
  const missed = truth.filter((id) => !putRight(id))
  const needless = mended.filter((id) => !truth.includes(id))
  const right = missed.length === 0
  const pace = Math.min(1, best.minutes / Math.max(minutes, 1))
  const well = review.filter((r) => wellChosen.has(r.judgement)).length / Math.max(1, review.length)
  const raw = right ? 50 + 50 * pace : (30 * found.length) / truth.length + 20 * well
  const points = Math.round(Math.max(0, Math.min(100, raw - 8 * (needless.length + harms))))
  return { points, right, found, missed, needless, minutes, best, review, lessons: missed.map(lessonOf) }
}

const wellChosen: ReadonlySet<Judgement> = new Set(['best', 'good', 'sure'])

/** The test that tells a fault from a sound board most for its minutes, by the divergence of its outcomes, bits a minute. */
function lessonOf(fault: FaultId): Lesson {
  const tells = benchTests.map((test) => {
    const [there, sound] = [test.odds([fault]), test.odds([])]
    const bits = there.reduce(
      (sum, p, o) => sum + (p > 0 ? p * Math.log2(p / Math.max(sound[o]!, 1e-9)) : 0),
      0,
    )
    const o = there.reduce((best, p, i) => (p - sound[i]! > there[best]! - sound[best]! ? i : best), 0)
    return {
      worth: bits / test.minutes,
      lesson: { fault, test: test.say, outcome: test.outcomes[o]!, odds: there[o]! },
    }
  })
  return tells.reduce((a, b) => (b.worth > a.worth ? b : a)).lesson
}

/** One test at the odds of its moment, beside the best there was then. */
function judge(
  step: Extract<PracticeStep, { do: 'test' }>,
  now: Float64Array,
  so: Pick<Choosing, 'done' | 'seen'>,
  short: Short,
): { readonly judgement: Judgement; readonly why: string } {
  const test = testOf(step.test)
  const mayPower = step.mayPower ?? true
  const ranked = nextTests(now, { ...so, mayPower })
  const best = ranked[0]
  const mine = ranked.find((s) => s.test.id === step.test)
  const share = best && mine ? mine.worth / best.worth : mine ? 1 : 0
  const better = best && best.test.id !== step.test ? `better: ${best.test.say}` : 'the best there was'
  if (test.powers && isLikely(short))
    return {
      judgement: 'risky',
      why:
        short === 'read'
          ? 'powered with a rail that was read at ground; clear it, or measure it again first'
          : `powered with a short ${percent(short)} likely; measure the rails first`,
    }
  if (test.lends && riskOf(now) >= RISK_LIKELY) {
    const minutes = Math.round(riskOf(now) * worthMinutes[test.lends])
    return {
      judgement: 'risky',
      why: `the ${test.lends} it lends stood for ${minutes} minutes of risk; ${better}`,
    }
  }
  if (share >= 0.9)
    return { judgement: 'best', why: share < 1 && best ? `as good as: ${best.test.say}` : better }
  if (!mayPower && step.test.startsWith('ohms '))
    return { judgement: 'good', why: 'the power gate asks for it' }
  if (share >= 0.5) return { judgement: 'good', why: better }
  if (share >= 0.1)
    return {
      judgement: 'costly',
      why: `it told ${Math.round(100 * share)} % as much for its minutes; ${better}`,
    }
  return { judgement: 'told nothing', why: best ? better : 'all was settled by then' }
}

/** The reasoner's policy on a board, over draws of the noise. */
export function bestPolicy({ history, truth, seed, draws = DRAWS }: Omit<Practice, 'steps'>): BestPolicy {
  const prior = priorOdds(history)
  let minutes = 0
  let right = 0
  for (let k = 0; k < draws; k++) {
    const worked = workBoard(suggested, prior, new ModelBoard(truth, seeded(seed * 31 + k)))
    minutes += worked.end === 'right' ? worked.minutes : LIMIT_MINUTES / 2
    if (worked.end === 'right') right++
  }
  return { minutes: minutes / draws, right: right / draws, draws }
}
