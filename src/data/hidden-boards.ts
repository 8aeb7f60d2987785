import 'server-only'
import type { FaultId } from '@/core/triage/fault'
import { pool } from './pool'
import type { Queryable } from './pool'

/** What is really wrong with a simulated board; it never leaves the server before the practice is over. */
export interface HiddenBoard {
  readonly faults: readonly FaultId[]
  readonly seed: number
}

export async function hiddenBoardOf(jobId: string, db: Queryable = pool()): Promise<HiddenBoard | null> {
  const { rows } = await db.query<HiddenBoard>('select faults, seed from hidden_board where job_id = $1', [
    jobId,
  ])
  return rows[0] ?? null
}

export async function hideBoard(
  jobId: string,
  { faults, seed }: HiddenBoard,
  db: Queryable = pool(),
): Promise<void> {
  await db.query(
    'insert into hidden_board (job_id, faults, seed) values ($1, $2, $3) on conflict (job_id) do nothing',
    [jobId, faults, seed],
  )
}
