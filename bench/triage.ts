// Simulated boards worked by three policies that share the reasoner and the stopping rule, and small ones worked exactly.
import { seeded } from '@/core/maths/seeded'
import { benchTests } from '@/core/triage/model/bench-tests'
import type { BenchTest } from '@/core/triage/model/bench-test'
import { faultIds } from '@/core/triage/model/faults'
import type { FaultId } from '@/core/triage/model/faults'
import { nextTests, verdict } from '@/core/triage/reason/next-test'
import { hypotheses } from '@/core/triage/reason/hypotheses'
import { likelihood } from '@/core/triage/reason/likelihood'
import { normalise } from '@/core/maths/normalise'
import { priorOdds } from '@/core/triage/reason/odds'
import { policies } from '@/core/triage/reason/policies'
import { workBoard } from '@/core/triage/reason/work-board'
import type { Policy, Worked } from '@/core/triage/reason/work-board'
import { DrawnBoard } from '@/simulated-bench/drawn-board'
import { decileFigures, line, mean, percent } from './figure'

interface BoardWorked extends Worked {
  readonly truth: readonly FaultId[]
  readonly took: readonly number[]
}

/** One drawn board, worked, with the time each choice took. */
function work(policy: Policy, prior: Float64Array, seed: number): BoardWorked {
  const board = new DrawnBoard(prior, seeded(seed))
  const took: number[] = []
  const timed: Policy = (now, done) => {
    const began = performance.now()
    const test = policy(now, done)
    took.push(performance.now() - began)
    return test
  }
  const worked = workBoard(timed, prior, board)
  return { ...worked, truth: board.truth, took }
}

/** Expected minutes of a small board when every choice is best, and when each is the one suggested. */
function small(seed: number): { readonly best: number; readonly suggested: number } {
  const draw = seeded(seed)
  const some = <T>(from: readonly T[], n: number) => [...from].sort(() => draw() - 0.5).slice(0, n)
  const suspects = new Set(some(faultIds, 5))
  const tests = some(
    benchTests.filter((t) => t.lends === null && t.outcomes.length <= 3),
    4,
  )
  const others = new Set(benchTests.filter((t) => !tests.includes(t)).map((t) => t.id))
  const prior = normalise(
    priorOdds([]).map((p, h) => (hypotheses[h]?.length === 1 && suspects.has(hypotheses[h][0]!) ? p : 0)),
  )
  const UNDECIDED = 120
  const cost = (odds: Float64Array, left: readonly BenchTest[], best: boolean): number => {
    if (verdict(odds)) return 0
    const done = new Set([...others, ...tests.filter((t) => !left.includes(t)).map((t) => t.id)])
    const first = best
      ? left
      : nextTests(odds, { done })
          .slice(0, 1)
          .map((s) => s.test)
    let least = UNDECIDED
    for (const test of first) {
      const rest = left.filter((t) => t !== test)
      let expected = test.minutes
      for (const row of likelihood(test)) {
        const seen = odds.map((p, h) => p * row[h]!)
        const share = seen.reduce((a, b) => a + b, 0)
        if (share > 1e-9) expected += share * cost(normalise(seen), rest, best)
      }
      least = best ? Math.min(least, expected) : expected
    }
    return least
  }
  return { best: cost(prior, tests, true), suggested: cost(prior, tests, false) }
}

/** Pairs of faults that even the best single test hardly tells apart: greatest total variation over all tests. */
function alike(
  most: number,
): readonly { readonly a: FaultId; readonly b: FaultId; readonly apart: number }[] {
  const odds = new Map(faultIds.map((id) => [id, benchTests.map((t) => t.odds([id]))]))
  return faultIds
    .flatMap((a, i) =>
      faultIds.slice(i + 1).map((b) => {
        const [of, other] = [odds.get(a)!, odds.get(b)!]
        const apart = Math.max(
          ...of.map((row, t) => row.reduce((sum, p, o) => sum + Math.abs(p - other[t]![o]!), 0) / 2),
        )
        return { a, b, apart }
      }),
    )
    .sort((x, y) => x.apart - y.apart)
    .slice(0, most)
}

/** Figures of triage on boards no figure was set by (seeds from 300,000); those below were looked at while it was made. */
export function triageFigures(boards: number): void {
  const prior = priorOdds([])
  const run = (policy: Policy) => Array.from({ length: boards }, (_, i) => work(policy, prior, 300_000 + i))
  const ours = run(policies.suggested)
  const share = (all: readonly BoardWorked[], end: Worked['end']) =>
    all.filter((w) => w.end === end).length / all.length
  const minutes = (all: readonly Worked[]) => mean(all.map((w) => w.minutes))
  const wrong = share(ours, 'wrong') + share(ours, 'missed one')
  line(`triage, ${boards} boards: mean minutes to a right verdict`, minutes(ours).toFixed(1))
  for (const [name, least] of [
    ['checklist', 0.35],
    ['cheapest first', 0.15],
  ] as const) {
    const other = minutes(run(policies[name]))
    const less = 1 - minutes(ours) / other
    line(
      `  less than by ${name} (${other.toFixed(1)})`,
      percent(less),
      `≥ ${percent(least)}: ${less >= least ? 'met' : 'MISSED'}`,
    )
  }
  line(
    '  wrong verdicts, a missed second fault among them',
    percent(wrong),
    `≤ 3 %: ${wrong <= 0.03 ? 'met' : 'MISSED'}`,
  )
  line('  undecided (counted as a full limit)', percent(share(ours, 'undecided')))
  const took = ours.flatMap((w) => w.took).sort((a, b) => a - b)
  const p95 = took[Math.floor(0.95 * took.length)]!
  line(
    '  one suggestion, median and p95, ms',
    `${took[took.length >> 1]!.toFixed(0)} ${p95.toFixed(0)}`,
    `≤ 150: ${p95 <= 150 ? 'met' : 'MISSED'}`,
  )
  decileFigures(ours.flatMap((w) => w.guesses))
  const confused = new Map<string, number>()
  for (const w of ours)
    if (w.end === 'wrong') {
      const key = `${w.repaired.at(-1)} for ${w.truth.join(' and ')}`
      confused.set(key, (confused.get(key) ?? 0) + 1)
    }
  for (const [key, n] of [...confused].sort((a, b) => b[1] - a[1]).slice(0, 8)) line(`  said ${key}`, `${n}`)
  for (const { a, b, apart } of alike(6))
    line(`  ${a} and ${b}: the best test tells them apart by`, apart.toFixed(2))
  const exact = Array.from({ length: 40 }, (_, i) => small(90_000 + i)).filter((s) => s.best > 0)
  const ratio = mean(exact.map((s) => s.suggested)) / mean(exact.map((s) => s.best))
  line(
    '  small boards (5 faults, 4 tests): minutes over the exact best',
    `× ${ratio.toFixed(3)}`,
    `≤ 1.15: ${ratio <= 1.15 ? 'met' : 'MISSED'}`,
  )
}
