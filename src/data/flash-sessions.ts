import 'server-only'
import type { FlashReport, FlashSession, FlashStage } from '@/core/firmware/flash/session'
import { SECTOR } from '@/core/firmware/image/image-bytes'
import { pool } from './pool'
import type { Queryable } from './pool'

const columns = 'id, image, release, despite, backup, stage, share, ended, say'
/** A session that has not been heard of for so long has no server any more, seconds. */
const SILENT_S = 15
const GONE = 'The server went away in the midst of it. Go on from here, or roll back to the backup.'

/**
 * The last session of a job; one whose server has gone is ended first.
 * @param since line of the tape from which on the chip is the one on the board: what was before was another’s
 */
export async function lastSession(
  jobId: string,
  since: number,
  db: Queryable = pool(),
): Promise<FlashSession | null> {
  await db.query(
    `update flash_session set ended = 'stopped', say = $2
     where job_id = $1 and ended is null and seen_at < now() - make_interval(secs => $3)`,
    [jobId, GONE, SILENT_S],
  )
  const { rows } = await db.query<FlashSession>(
    `select ${columns} from flash_session where job_id = $1 and seq >= $2 order by begun_at desc limit 1`,
    [jobId, since],
  )
  return rows[0] ?? null
}

/** Begins a session, unless another is running on this job. The same id again begins nothing. @param seq the tape’s last line */
export async function beginSession(
  jobId: string,
  seq: number,
  {
    id,
    image,
    release,
    despite,
    backup,
  }: Pick<FlashSession, 'id' | 'image' | 'release' | 'despite' | 'backup'>,
): Promise<'begun' | 'known' | 'another runs'> {
  const { rowCount } = await pool().query(
    `insert into flash_session (id, job_id, seq, image, release, despite, backup, stage)
     values ($1, $2, $3, $4, $5, $6, $7, 'voltage') on conflict do nothing`,
    [id, jobId, seq, image, release, JSON.stringify(despite), backup],
  )
  if (rowCount) return 'begun'
  const known = await pool().query('select 1 from flash_session where id = $1', [id])
  return known.rowCount ? 'known' : 'another runs'
}

/** Notes how far it is, and says whether it has to stop: it was asked to, or was given up for gone. */
export async function noteProgress(id: string, stage: FlashStage, share: number): Promise<boolean> {
  const { rows } = await pool().query<{ stop: boolean }>(
    'update flash_session set stage = $2, share = $3, seen_at = now() where id = $1 and ended is null returning stop',
    [id, stage, share],
  )
  return rows[0]?.stop ?? true
}

export async function noteBackup(id: string, sha256: string, db: Queryable): Promise<void> {
  await db.query('update flash_session set backup = $2, seen_at = now() where id = $1', [id, sha256])
}

export async function endSession(id: string, ended: FlashReport['ended'], say: string): Promise<void> {
  await pool().query(
    'update flash_session set ended = $2, say = $3, seen_at = now() where id = $1 and ended is null',
    [id, ended, say],
  )
}

export async function askToStop(jobId: string): Promise<void> {
  await pool().query('update flash_session set stop = true where job_id = $1 and ended is null', [jobId])
}

/** Lays over what a simulated chip was laid with what has been written to it since. */
export async function layBlocks(jobId: string, contents: Uint8Array): Promise<Uint8Array> {
  const { rows } = await pool().query<{ n: number; data: Buffer }>(
    'select n, data from simulated_chip_block where job_id = $1',
    [jobId],
  )
  for (const { n, data } of rows)
    if (n * SECTOR + data.length <= contents.length) contents.set(data, n * SECTOR)
  return contents
}

export async function keepBlock(jobId: string, n: number, data: Uint8Array): Promise<void> {
  await pool().query(
    `insert into simulated_chip_block (job_id, n, data) values ($1, $2, $3)
     on conflict (job_id, n) do update set data = excluded.data`,
    [jobId, n, Buffer.from(data)],
  )
}
