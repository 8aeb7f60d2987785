import type { BenchTest } from '../model/bench-test'
import { benchTests } from '../model/bench-tests'
import { faultIds } from '../model/faults'
import type { FaultId } from '../model/faults'
import { changedBy, repairOf } from '../model/repair'
import type { Change } from '../model/repair'
import {
  nextTests,
  repairMove,
  riskOf,
  toConfirm,
  verdict,
  WORTH_BITS,
  worthTrying,
  worthMinutes,
} from './next-test'
import { testOf } from './hypotheses'
import { faultOdds, posterior, standing, unknownOdds } from './odds'
import { asItCounts, doneNow, seenNow } from './likelihood'
import type { Evidence } from './likelihood'
import type { BoardOnBench } from './board-on-bench'

/** Bench time after which a board counts as undecided, minutes (bench default). */
export const LIMIT_MINUTES = 240

/**
 * Chooses a test, or a fault to repair and see, from the odds as the board stands and what was done since the last mend;
 * null where nothing tells enough.
 */
export type Policy = (
  now: Float64Array,
  done: ReadonlySet<string>,
  seen?: readonly Evidence[],
  tried?: ReadonlySet<FaultId>,
) => BenchTest | FaultId | null

/** A repair, or the reading it rests on once more. */
function confirmed(now: Float64Array, fault: FaultId, seen: readonly Evidence[]): BenchTest | FaultId {
  const first = toConfirm(now, fault, { seen })
  return first === null ? fault : testOf(first)
}

/** The policy of the product: the first suggestion, or the repair that is worth more, while one tells enough. */
export const suggested: Policy = (now, done, seen, tried) => {
  const tests = nextTests(now, { done, ...(seen ? { seen } : {}) })
  const first = tests[0]
  const repair = repairMove(now, tests)
  if (repair && !tried?.has(repair.fault)) return confirmed(now, repair.fault, seen ?? [])
  return first && first.tells >= WORTH_BITS ? first.test : null
}

export interface Worked {
  /** Minutes to a right verdict; the whole limit for any other end. */
  readonly minutes: number
  readonly end: 'right' | 'wrong' | 'missed one' | 'undecided'
  /** The likeliest fault at each step: its odds, and whether it was there. */
  readonly guesses: readonly { readonly odds: number; readonly right: boolean }[]
  readonly repaired: readonly FaultId[]
  /** A repair was made of what had never been wrong. */
  readonly needless: boolean
}

/**
 * Works one board from the first power-up to a verdict: a fault that is found is repaired, after the one reading it may rest
 * on was taken once more, and the board powered again, until nothing is taken to be left; a second fault is found behind the first, or missed. Where no test tells enough any
 * more, the likeliest fault is repaired to see, each once. Of a board with something in no list the right end is to say so.
 */
export function workBoard(policy: Policy, prior: Float64Array, board: BoardOnBench): Worked {
  const evidence: Evidence[] = []
  const changes: Change[] = []
  const guesses: { odds: number; right: boolean }[] = []
  const tried = new Set<FaultId>()
  let minutes = 0
  let needless = false
  const ended = (end: Worked['end']): Worked => ({
    minutes: end === 'right' ? minutes : LIMIT_MINUTES,
    end,
    guesses,
    repaired: changes.filter((c) => c.is === 'mended').map((c) => c.fault),
    needless,
  })
  const look = (test: BenchTest) => {
    evidence.push({ test: test.id, outcome: board.see(test), after: changes.length })
    changes.push(...changedBy(test.id))
    minutes += test.minutes
  }
  /** Whether it had been wrong. */
  const repair = (fault: FaultId): boolean => {
    const there = board.mend(fault)
    needless ||= !there
    changes.push({ is: 'mended', fault })
    minutes += repairOf(fault).minutes
    return there
  }
  look(benchTests[0]!)
  while (minutes < LIMIT_MINUTES) {
    const counted = asItCounts(evidence)
    const seen = seenNow(counted, changes)
    const now = standing(posterior(prior, counted, changes), changes)
    const each = faultOdds(now)
    const top = each.indexOf(Math.max(...each))
    const likeliest = faultIds[top]!
    guesses.push({ odds: each[top]!, right: board.wrong.includes(likeliest) })
    const sure = verdict(now)
    if (sure?.is === 'nothing known') return ended(board.unlisted ? 'right' : 'undecided')
    if (sure?.is === 'nothing left')
      return ended(board.wrong.length === 0 && !board.unlisted ? 'right' : 'missed one')
    if (sure?.is === 'found') {
      const first = confirmed(now, sure.fault, seen)
      if (typeof first === 'string' && !repair(first)) return ended('wrong')
      look(typeof first === 'string' ? benchTests[0]! : first)
      continue
    }
    const move = policy(now, doneNow(counted, changes), seen, tried)
    if (typeof move === 'string') {
      tried.add(move)
      repair(move)
      look(benchTests[0]!)
    } else if (move) {
      if (move.lends) minutes += riskOf(now) * worthMinutes[move.lends]
      look(move)
    } else {
      if (!worthTrying(each[top]!, unknownOdds(now)) || tried.has(likeliest)) return ended('undecided')
      tried.add(likeliest)
      repair(likeliest)
      look(benchTests[0]!)
    }
  }
  return ended('undecided')
}
