import 'server-only'
import { jobRecord } from '@/core/record/job-record'
import type { JobRecord } from '@/core/record/job-record'
import { learnedFrom } from '@/core/record/learned'
import type { Learned } from '@/core/record/learned'
import type { JobState } from '@/core/job/job-state'
import { jobNow } from './job-now'
import { pool, transaction } from './pool'
import type { Queryable } from './pool'

/** Changes whenever a record changes its shape: what was kept before is then made anew. */
const SHAPE = 4

/** Keeps what a finished job leaves for the record; of one that was opened again nothing stays. */
export async function saveJobRecord(jobId: string, state: JobState, db: Queryable): Promise<void> {
  const record = jobRecord(state)
  if (record)
    await db.query(
      `insert into job_record (job_id, shape, body) values ($1, $2, $3)
       on conflict (job_id) do update set shape = $2, body = $3`,
      [jobId, SHAPE, JSON.stringify(record)],
    )
  else await db.query('delete from job_record where job_id = $1', [jobId])
}

/** Jobs that were finished before their record was kept, made up for at a time. */
const AT_ONCE = 200

/** The records of the shop’s finished jobs, newest first; those of practice do not count. */
export async function jobRecords(most: number): Promise<readonly (JobRecord & { readonly tag: string })[]> {
  const { rows: behind } = await pool().query<{ id: string }>(
    `select j.id from job j left join job_record r on r.job_id = j.id and r.shape = $1
     where j.closed_at is not null and j.outcome <> 'withdrawn' and not j.practice and r.job_id is null
     order by j.closed_at desc limit $2`,
    [SHAPE, AT_ONCE],
  )
  for (const { id } of behind)
    await transaction(async (db) => {
      // A line that comes meanwhile waits, and makes it anew.
      await db.query('select 1 from job where id = $1 for update', [id])
      await saveJobRecord(id, (await jobNow(id, db)).state, db)
    })
  const { rows } = await pool().query<{ tag: string; body: JobRecord }>(
    `select j.tag, r.body from job j join job_record r on r.job_id = j.id
     where j.closed_at is not null and j.outcome <> 'withdrawn' and not j.practice
     order by j.closed_at desc limit $1`,
    [most],
  )
  return rows.map(({ tag, body }) => ({ tag, ...body }))
}

/** Jobs that the work of today learns from. */
const LAST = 1000

export const learnedNow = async (): Promise<Learned> => learnedFrom(await jobRecords(LAST))
