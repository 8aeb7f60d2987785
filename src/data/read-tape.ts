import 'server-only'
import type { Entry } from '@/core/job/job-state'
import type { Kind } from '@/core/slices'
import { pool } from './pool'
import type { Queryable } from './pool'

interface Row {
  seq: number
  id: string
  at: Date
  by_name: string
  kind: Kind
  v: number
  body: unknown
  strikes: number | null
}

const entryOf = (row: Row): Entry =>
  ({
    seq: row.seq,
    id: row.id,
    at: row.at.toISOString(),
    by: row.by_name,
    kind: row.kind,
    v: row.v,
    body: row.body,
    strikes: row.strikes,
  }) as unknown as Entry

const columns = 'seq, id, at, by_name, kind, v, body, strikes'

/** The lines of a job's tape after a place, oldest first. */
export async function readTape(jobId: string, after = 0, db: Queryable = pool()): Promise<Entry[]> {
  const { rows } = await db.query<Row>(
    `select ${columns} from tape_entry where job_id = $1 and seq > $2 order by seq`,
    [jobId, after],
  )
  return rows.map(entryOf)
}

/** Some lines of a tape by their numbers. */
export async function readLines(jobId: string, seqs: readonly number[], db: Queryable): Promise<Entry[]> {
  if (seqs.length === 0) return []
  const { rows } = await db.query<Row>(
    `select ${columns} from tape_entry where job_id = $1 and seq = any($2::int[]) order by seq`,
    [jobId, seqs],
  )
  return rows.map(entryOf)
}

/** The line of a client's own id, if it was written before. */
export async function lineById(jobId: string, id: string, db: Queryable): Promise<Entry | null> {
  const { rows } = await db.query<Row>(`select ${columns} from tape_entry where job_id = $1 and id = $2`, [
    jobId,
    id,
  ])
  return rows[0] ? entryOf(rows[0]) : null
}

/** Lines after a place that other accounts wrote: two people are told apart by who they are, not by what they are called. */
export async function linesOfOthers(
  jobId: string,
  after: number,
  account: string,
  db: Queryable,
): Promise<Entry[]> {
  const { rows } = await db.query<Row>(
    `select ${columns} from tape_entry where job_id = $1 and seq > $2 and by_account is distinct from $3 order by seq`,
    [jobId, after, account],
  )
  return rows.map(entryOf)
}
