import 'server-only'
import type { Marks } from '@/core/socket/damage/mark'
import type { FaultId } from '@/core/triage/model/faults'
import type { BestPolicy } from '@/core/triage/practice/practice-score'
import { pool } from './pool'
import type { Queryable } from './pool'

/** What is really wrong with a simulated board; it does not leave the server before the practice is over. */
export interface HiddenBoard {
  readonly faults: readonly FaultId[]
  readonly seed: number
  /** What the contacts were like when it was laid on the bench. */
  readonly marks: Marks
  /** What the best policy takes on it; null where that is not known. */
  readonly best: BestPolicy | null
  /** The tape's last line when the faults were shown; null while they are hidden. */
  readonly shownSeq: number | null
}

export async function hiddenBoardOf(jobId: string, db: Queryable = pool()): Promise<HiddenBoard | null> {
  const { rows } = await db.query<HiddenBoard>(
    'select faults, seed, marks, best, shown_seq as "shownSeq" from hidden_board where job_id = $1',
    [jobId],
  )
  return rows[0] ?? null
}

export async function hideBoard(
  jobId: string,
  { faults, seed, marks = {}, best = null }: Pick<HiddenBoard, 'faults' | 'seed'> & Partial<HiddenBoard>,
  db: Queryable = pool(),
): Promise<void> {
  await db.query(
    `insert into hidden_board (job_id, faults, seed, marks, best) values ($1, $2, $3, $4, $5)
     on conflict (job_id) do nothing`,
    [jobId, faults, seed, JSON.stringify(marks), best],
  )
}

/** Shows what was wrong; what comes on the tape afterwards does not count. Shown once, it stays as it was. */
export async function showBoard(jobId: string): Promise<void> {
  await pool().query(
    `update hidden_board h set shown_seq = j.seq from job j
     where h.job_id = $1 and j.id = h.job_id and h.shown_seq is null`,
    [jobId],
  )
}
