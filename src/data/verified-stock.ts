import 'server-only'
import { pool } from './pool'

/** Most boards of verified stock that are looked through. */
const MOST = 60

/** Jobs whose board was kept as verified stock and is in no other machine since. */
export async function verifiedStock(): Promise<{ readonly id: string; readonly tag: string }[]> {
  const { rows } = await pool().query<{ id: string; tag: string }>(
    `select distinct j.id, j.tag from tape_standing t join job j on j.id = t.job_id
     where t.kind = 'hand-back' and t.body ->> 'fate' = 'verified stock' and not j.practice
       and not exists (select 1 from tape_standing x where x.kind = 'hand-back' and x.body ->> 'exchangedFor' = j.tag)
     order by j.tag limit $1`,
    [MOST],
  )
  return rows
}
