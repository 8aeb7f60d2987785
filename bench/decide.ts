// Whether going on is weighed rightly: what is said at some step of a simulated board, against when it ran.
import { seeded } from '@/core/maths/seeded'
import { decide, waysOf } from '@/core/shop/decide'
import { changedBy, repairOf } from '@/core/triage/model/repair'
import type { Change } from '@/core/triage/model/repair'
import type { BenchTest } from '@/core/triage/model/bench-test'
import type { FaultId } from '@/core/triage/model/faults'
import { asItCounts } from '@/core/triage/reason/likelihood'
import type { Evidence } from '@/core/triage/reason/likelihood'
import { everyWay } from '@/core/triage/reason/belief'
import type { BoardOnBench } from '@/core/triage/reason/board-on-bench'
import { priorOdds } from '@/core/triage/reason/odds'
import { policies } from '@/core/triage/reason/policies'
import { workBoard } from '@/core/triage/reason/work-board'
import { DrawnBoard } from '@/simulated-bench/drawn-board'
import { line, mean, percent } from './figure'
import { secondBoard, WHOLE } from './second-judge'

interface Step {
  readonly minutes: number
  readonly evidence: readonly Evidence[]
  readonly changes: readonly Change[]
}

/** A board whose every step is kept: what had been seen and done by then, and the minute. */
class KeptBoard implements BoardOnBench {
  readonly steps: Step[] = []
  private readonly evidence: Evidence[] = []
  private readonly changes: Change[] = []
  private minutes = 0

  constructor(private readonly board: BoardOnBench) {}
  get wrong(): readonly FaultId[] {
    return this.board.wrong
  }
  get unlisted(): boolean {
    return this.board.unlisted
  }
  see(test: BenchTest): string {
    const outcome = this.board.see(test)
    this.evidence.push({ test: test.id, outcome, after: this.changes.length })
    this.changes.push(...changedBy(test.id))
    this.minutes += test.minutes
    this.steps.push({
      minutes: this.minutes,
      evidence: asItCounts([...this.evidence]),
      changes: [...this.changes],
    })
    return outcome
  }
  mend(fault: FaultId): boolean {
    this.changes.push({ is: 'mended', fault })
    this.minutes += repairOf(fault).minutes
    return this.board.mend(fault)
  }
}

/** A machine worth so much that only the limit ends it, so that what is said is the chance within it. */
const worthAll = { valueMinor: 100_000_000, ratePerHourMinor: 60_000, spentMinutes: 0, others: [] }
const WITHIN = [20, 40, 80, 160] as const

/** What was said of running within so many minutes, and whether it did. */
function saidOf(board: BoardOnBench, seed: number): { within: number; said: number; ran: boolean }[] {
  const kept = new KeptBoard(board)
  const prior = priorOdds([])
  const { end } = workBoard(policies.suggested, prior, kept)
  const runs = end === 'right' && !kept.unlisted
  const at = kept.steps[Math.floor(seeded(seed)() * kept.steps.length)]!
  const all = everyWay({ history: [], evidence: at.evidence, changes: at.changes })
  const { ways, lookingMinutes } = waysOf(all, [])
  const asked = { ...worthAll, ways: ways.map((way) => ({ ...way, partsMinor: 0 })), lookingMinutes }
  return WITHIN.map((within) => ({
    within,
    said: decide({ ...asked, limitMinor: within * 1000 }).goingOn.runs,
    ran: runs && kept.steps.at(-1)!.minutes - at.minutes <= within,
  }))
}

export function decideFigures(boards: number, from = 600_000): void {
  const judges: readonly (readonly [string, (i: number) => BoardOnBench])[] = [
    ['drawn boards', (i) => new DrawnBoard(priorOdds([]), seeded(from + i))],
    ['second judge, all together', (i) => secondBoard(WHOLE, i, from * 10)],
  ]
  for (const [name, make] of judges) {
    const all = Array.from({ length: boards }, (_, i) => saidOf(make(i), from + i)).flat()
    line(
      `going on, ${name}, ${boards} boards: mean square of the error`,
      mean(all.map(({ said, ran }) => (said - Number(ran)) ** 2)).toFixed(3),
    )
    for (const within of WITHIN) {
      const some = all.filter((s) => s.within === within)
      line(
        `  runs within ${within} minutes: said ${percent(mean(some.map((s) => s.said)))}`,
        percent(mean(some.map((s) => Number(s.ran)))),
      )
    }
  }
}
