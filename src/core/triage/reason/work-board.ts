import type { BenchTest } from '../model/bench-test'
import { benchTests } from '../model/bench-tests'
import { faultIds } from '../model/faults'
import type { FaultId } from '../model/faults'
import { curedBy } from '../model/repair'
import { nextTests, riskOf, verdict, WORTH_BITS, WORTH_TRYING, worthMinutes } from './next-test'
import { faultOdds, posterior, standing } from './odds'
import type { Change, Evidence } from './odds'

/** Bench time after which a board counts as undecided, and what one mend takes, minutes (bench default). */
export const LIMIT_MINUTES = 240
export const MEND_MINUTES = 15

/** Chooses a test from the odds as the board stands and what was done since the last mend; null to give up. */
export type Policy = (now: Float64Array, done: ReadonlySet<string>) => BenchTest | null

/** The policy of the product: the first suggestion, while one tells enough. */
export const suggested: Policy = (now, done) => {
  const first = nextTests(now, { done })[0]
  return first && first.tells >= WORTH_BITS ? first.test : null
}

export interface Worked {
  /** Minutes to a right verdict; the whole limit for any other end. */
  readonly minutes: number
  readonly end: 'right' | 'wrong' | 'missed one' | 'undecided'
  /** The likeliest fault at each step: its odds, and whether it was there. */
  readonly guesses: readonly { readonly odds: number; readonly right: boolean }[]
  readonly mended: readonly FaultId[]
}

/**
 * Works one board with known faults from the first power-up to a verdict: a fault that is found is mended and the
 * board powered again, until nothing is taken to be left; a second fault is found behind the first, or missed. Where no
 * test tells enough any more, the likeliest fault is repaired to see, each once.
 * @param see what a test shows when these faults are mended
 * @param takes whether a repair of a fault that is there takes; each time it is tried
 */
export function workBoard(
  policy: Policy,
  prior: Float64Array,
  truth: readonly FaultId[],
  see: (test: BenchTest, mended: readonly FaultId[]) => string,
  takes: (fault: FaultId) => boolean = () => true,
): Worked {
  const evidence: Evidence[] = []
  const mended: FaultId[] = []
  const changes: Change[] = []
  const guesses: { odds: number; right: boolean }[] = []
  let done = new Set<string>()
  const tried = new Set<FaultId>()
  let minutes = 0
  const ended = (end: Worked['end']): Worked => ({
    minutes: end === 'right' ? minutes : LIMIT_MINUTES,
    end,
    guesses,
    mended,
  })
  const look = (test: BenchTest) => {
    evidence.push({ test: test.id, outcome: see(test, mended), after: changes.length })
    done.add(test.id)
    minutes += test.minutes
    for (const fault of curedBy(test.id)) {
      changes.push({ is: 'cured', fault })
      if (truth.includes(fault) && !mended.includes(fault)) mended.push(fault)
    }
  }
  look(benchTests[0]!)
  while (minutes < LIMIT_MINUTES) {
    const now = standing(posterior(prior, evidence, changes), changes)
    const each = faultOdds(now)
    const top = each.indexOf(Math.max(...each))
    const left = truth.filter((id) => !mended.includes(id))
    guesses.push({ odds: each[top]!, right: left.includes(faultIds[top]!) })
    const sure = verdict(now)
    if (sure?.is === 'nothing known') return ended('undecided')
    if (sure?.is === 'nothing left') return ended(left.length === 0 ? 'right' : 'missed one')
    if (sure?.is === 'found') {
      if (takes(sure.fault)) mended.push(sure.fault)
      changes.push({ is: 'mended', fault: sure.fault })
      if (!left.includes(sure.fault)) return ended('wrong')
      minutes += MEND_MINUTES
      done = new Set()
      look(benchTests[0]!)
      continue
    }
    const test = policy(now, done)
    if (!test) {
      const fault = faultIds[top]!
      if (each[top]! < WORTH_TRYING || tried.has(fault)) return ended('undecided')
      tried.add(fault)
      if (left.includes(fault) && takes(fault)) mended.push(fault)
      changes.push({ is: 'mended', fault })
      minutes += MEND_MINUTES
      done = new Set()
      look(benchTests[0]!)
      continue
    }
    if (test.lends) minutes += riskOf(now) * worthMinutes[test.lends]
    look(test)
  }
  return ended('undecided')
}
