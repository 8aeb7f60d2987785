import 'server-only'
import type { JobState } from '@/core/job/job-state'
import { figuresOf } from '@/core/socket/bench-figures'
import type { Socket } from '@/core/socket/socket'
import { landmarksOf } from '@/data/boards'
import { ownFigures } from '@/data/bench-figures'
import { donors } from '@/data/donors'
import { ownFaultOdds } from '@/data/fault-odds'
import { earlierJobs } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import { referencesOf } from '@/data/references'
import { shelf } from '@/data/shelf'
import { strokeRecord } from '@/data/stroke-record'
import type { Surroundings } from './job-store'

/** What stands round a job outside its tape. */
export async function surroundingsOf(
  job: Job,
  { intake: { ticket } }: JobState,
  socket: Socket | null,
): Promise<Surroundings> {
  const [landmarks, references, earlier, atHand, own, record, set, kept] = await Promise.all([
    landmarksOf(ticket.boardModelId),
    referencesOf(ticket.boardModelId),
    earlierJobs(job, ticket.serial),
    shelf(),
    ownFaultOdds(),
    strokeRecord(),
    ownFigures(),
    socket ? donors(socket.id) : [],
  ])
  return {
    socket,
    landmarks,
    references,
    earlier,
    shelf: atHand,
    own,
    record,
    figures: figuresOf(set),
    donors: kept,
  }
}
