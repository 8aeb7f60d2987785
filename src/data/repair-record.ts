import 'server-only'
import type { RepairTally } from '@/core/triage/model/repair-record'
import { pool } from './pool'

/**
 * Repairs of the whole shop by fault. One that had to be made again did not take; the last of its fault took where the
 * job ended fixed. What became of the last where it did not is not known, and is not counted; nor is practice. From the tapes, and not
 * from what jobs left for the record (`core/record/job-record.ts`, the same rule): that is made up for only where a record is read.
 */
export async function repairRecord(): Promise<RepairTally[]> {
  const { rows } = await pool().query<RepairTally>(
    `select fault, count(*)::int as tried, (count(*) filter (where last))::int as took from (
       select e.body->>'fault' as fault, j.outcome,
              e.seq = max(e.seq) over (partition by e.job_id, e.body->>'fault') as last
       from tape_entry e
       join tape_standing s on s.job_id = e.job_id and s.seq = e.seq
       join job j on j.id = e.job_id and not j.practice and j.closed_at is not null
         and j.outcome <> 'withdrawn'
       where e.kind = 'mended') repairs
     where not last or outcome = 'fixed'
     group by 1 order by 1`,
  )
  return rows
}
