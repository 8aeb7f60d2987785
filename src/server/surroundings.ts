import 'server-only'
import type { JobState } from '@/core/job/job-state'
import type { Socket } from '@/core/socket/model/socket'
import { adviceSettingOf } from '@/data/advice-setting'
import type { ShopSetting } from '@/data/advice-setting'
import { landmarksOf } from '@/data/boards'
import type { Landmark } from '@/data/boards'
import type { Donor } from '@/data/donors'
import { benchCpus } from '@/data/bench-cpus'
import type { BenchCpu } from '@/data/bench-cpus'
import type { Learned } from '@/core/record/learned'
import { learnedNow } from '@/data/job-records'
import { donors } from '@/data/donors'
import type { Job } from '@/data/jobs'

/** What stands round a job outside its tape; it follows from the board that the ticket names. */
export interface Surroundings {
  readonly socket: Socket | null
  readonly landmarks: readonly Landmark[]
  /** What bears on the advice. */
  readonly setting: ShopSetting
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
  const [landmarks, setting, kept, cpus, learned] = await Promise.all([
    landmarksOf(ticket.boardModelId),
    adviceSettingOf(job, ticket),
    socket ? donors(socket.id) : [],
    benchCpus(),
    learnedNow(),
  ])
  return { socket, landmarks, setting, donors: kept, benchCpus: cpus, learned }
}
