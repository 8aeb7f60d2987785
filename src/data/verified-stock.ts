import 'server-only'
import { pool } from './pool'

/** Most boards of verified stock that are looked through. */
const MOST = 60

/** Jobs whose board was kept as verified stock by their last hand-back, and is in no other machine since. */
export async function verifiedStock(): Promise<{ readonly id: string; readonly tag: string }[]> {
  const { rows } = await pool().query<{ id: string; tag: string }>(
    `with ends as (
       select distinct on (job_id) job_id, body ->> 'fate' as fate from tape_standing
       where kind = 'hand-back' order by job_id, seq desc
     )
     select j.id, j.tag from ends join job j on j.id = ends.job_id
     where ends.fate = 'verified stock' and not j.practice
       and not exists (select 1 from tape_standing x where x.kind = 'hand-back' and x.body ->> 'exchangedFor' = j.tag)
     order by j.tag limit $1`,
    [MOST],
  )
  return rows
}
