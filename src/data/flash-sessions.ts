import 'server-only'
import type { FlashReport, FlashStage } from '@/core/firmware/flash/session'
import { pool } from './pool'
import type { Queryable } from './pool'

/** A session at the chip, as it stands. */
export interface FlashSession {
  readonly id: string
  readonly image: string
  readonly release: string | null
  readonly despite: readonly string[]
  /** What was kept before the first erase. */
  readonly backup: string | null
  readonly stage: FlashStage
  readonly share: number
  readonly ended: FlashReport['ended'] | null
  readonly say: string
}

const columns = 'id, image, release, despite, backup, stage, share, ended, say'
/** A session that has not been heard of for so long has no server any more, seconds. */
const SILENT_S = 15
const GONE = 'The server went away in the midst of it. Go on from here, or roll back to the backup.'

/** The last session of a job; one whose server has gone is ended first. */
export async function lastSession(jobId: string, db: Queryable = pool()): Promise<FlashSession | null> {
  await db.query(
    `update flash_session set ended = 'stopped', say = $2
     where job_id = $1 and ended is null and seen_at < now() - make_interval(secs => $3)`,
    [jobId, GONE, SILENT_S],
  )
  const { rows } = await db.query<FlashSession>(
    `select ${columns} from flash_session where job_id = $1 order by begun_at desc limit 1`,
    [jobId],
  )
  return rows[0] ?? null
}

/** Begins a session; false when another is running on this job. The same id again begins nothing. */
export async function beginSession(
  jobId: string,
  accountId: string,
  {
    id,
    image,
    release,
    despite,
    backup,
  }: Pick<FlashSession, 'id' | 'image' | 'release' | 'despite' | 'backup'>,
): Promise<'begun' | 'known' | 'another runs'> {
  const { rowCount } = await pool().query(
    `insert into flash_session (id, job_id, account_id, image, release, despite, backup, stage)
     values ($1, $2, $3, $4, $5, $6, $7, 'voltage') on conflict do nothing`,
    [id, jobId, accountId, image, release, JSON.stringify(despite), backup],
  )
  if (rowCount) return 'begun'
  const known = await pool().query('select 1 from flash_session where id = $1', [id])
  return known.rowCount ? 'known' : 'another runs'
}

/** Notes how far it is, and says whether it is asked to stop. */
export async function noteProgress(id: string, stage: FlashStage, share: number): Promise<boolean> {
  const { rows } = await pool().query<{ stop: boolean }>(
    'update flash_session set stage = $2, share = $3, seen_at = now() where id = $1 returning stop',
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

/** Bytes of a block of the simulated chip. */
export const BLOCK_BYTES = 4096

/** Lays over what a simulated chip was laid with what has been written to it since. */
export async function layBlocks(jobId: string, contents: Uint8Array): Promise<Uint8Array> {
  const { rows } = await pool().query<{ n: number; data: Buffer }>(
    'select n, data from simulated_chip_block where job_id = $1',
    [jobId],
  )
  for (const { n, data } of rows)
    if (n * BLOCK_BYTES + data.length <= contents.length) contents.set(data, n * BLOCK_BYTES)
  return contents
}

export async function keepBlock(jobId: string, n: number, data: Uint8Array): Promise<void> {
  await pool().query(
    `insert into simulated_chip_block (job_id, n, data) values ($1, $2, $3)
     on conflict (job_id, n) do update set data = excluded.data`,
    [jobId, n, Buffer.from(data)],
  )
}
