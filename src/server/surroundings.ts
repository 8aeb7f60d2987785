import 'server-only'
import type { JobState } from '@/core/job/job-state'
import { figuresOf } from '@/core/socket/straighten/bench-figures'
import type { Socket } from '@/core/socket/model/socket'
import { landmarksOf } from '@/data/boards'
import type { Landmark } from '@/data/boards'
import type { References } from '@/core/job/references'
import type { Donor } from '@/data/donors'
import type { BenchFigures } from '@/core/socket/straighten/bench-figures'
import type { SnapTally } from '@/core/socket/straighten/snap-record'
import type { ShelfItem } from '@/core/board/shelf-items'
import type { RepairTally } from '@/core/triage/model/repair-record'
import type { FaultOdds } from '@/core/triage/model/fault-table'
import type { EarlierJob } from '@/data/jobs'
import { benchCpus } from '@/data/bench-cpus'
import type { BenchCpu } from '@/data/bench-cpus'
import type { Learned } from '@/core/record/learned'
import { learnedNow } from '@/data/job-records'
import { ownFigures } from '@/data/bench-figures'
import { donors } from '@/data/donors'
import { ownFaultOdds } from '@/data/fault-odds'
import { earlierJobs } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import { referencesOf } from '@/data/references'
import { repairRecord } from '@/data/repair-record'
import { shelf } from '@/data/shelf'
import { strokeRecord } from '@/data/stroke-record'

/** What stands round a job outside its tape; it follows from the board that the ticket names. */
export interface Surroundings {
  readonly socket: Socket | null
  readonly landmarks: readonly Landmark[]
  /** What is known of the board's model. */
  readonly references: References
  /** Jobs of the same board before this one. */
  readonly earlier: readonly EarlierJob[]
  /** What the shop has at hand for tests. */
  readonly shelf: readonly ShelfItem[]
  /** The shop's own odds of faults. */
  readonly own: FaultOdds
  /** What snapped of what was tried, over all jobs. */
  readonly record: readonly SnapTally[]
  /** What came of repairs, over all jobs. */
  readonly repairs: readonly RepairTally[]
  /** What the bench reckons with: the shop's own figures over the bench defaults. */
  readonly figures: BenchFigures
  /** Sockets of this kind that are kept for their contacts. */
  readonly donors: readonly Donor[]
  /** CPUs of the shop's bench, and what others would cost. */
  readonly benchCpus: readonly BenchCpu[]
  /** What the record says for the work of today. */
  readonly learned: Learned
}

/** What stands round a job outside its tape. */
export async function surroundingsOf(
  job: Job,
  { intake: { ticket } }: JobState,
  socket: Socket | null,
): Promise<Surroundings> {
  const [landmarks, references, earlier, atHand, own, record, repairs, set, kept, cpus, learned] =
    await Promise.all([
      landmarksOf(ticket.boardModelId),
      referencesOf(ticket.boardModelId),
      earlierJobs(job, ticket.serial),
      shelf(job.tag),
      ownFaultOdds(),
      strokeRecord(),
      repairRecord(),
      ownFigures(),
      socket ? donors(socket.id) : [],
      benchCpus(),
      learnedNow(),
    ])
  return {
    socket,
    landmarks,
    references,
    earlier,
    shelf: atHand,
    own,
    record,
    repairs,
    figures: figuresOf(set),
    donors: kept,
    benchCpus: cpus,
    learned,
  }
}
