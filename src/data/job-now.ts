import 'server-only'
import { createHash } from 'node:crypto'
import { foldOn, jobState } from '@/core/job/job-state'
import type { Entry, JobState } from '@/core/job/job-state'
import type { Socket } from '@/core/socket/model/socket'
import { pool } from './pool'
import type { Queryable } from './pool'
import { readTape } from './read-tape'
import { socketById } from './sockets'

/** A job as its tape has it. */
export interface JobNow {
  readonly state: JobState
  readonly socket: Socket | null
  /** The last line of the kept snapshot; 0 where there is none. */
  readonly snapshotSeq: number
}

/** Changes whenever slices make something else of a line: what was kept before is then folded anew. */
const FOLD = 20
/** A state that has other fields than what was kept is of another shape by itself, whether or not anybody thought of it. */
const SHAPE = createHash('sha256')
  .update(`${FOLD} ${JSON.stringify(jobState([]))}`)
  .digest()
  .readInt32BE()
/** Lines after which a snapshot is kept again. */
export const SNAPSHOT_EVERY = 64
/** Jobs of which a process remembers what their tapes say. */
const MOST_KEPT = 64

// Lines are only ever added, so what a tape says at a line stays true; what a transaction wrote is remembered once it
// is committed.
const kept = new Map<string, JobNow>()

export function remember(jobId: string, now: JobNow): void {
  kept.delete(jobId)
  kept.set(jobId, now)
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
}

const contactNames = new WeakMap<Socket, readonly string[]>()
/** Names of a socket's contacts, in its own order. */
export function namesOf(socket: Socket | null): readonly string[] {
  if (!socket) return []
  const known = contactNames.get(socket)
  if (known) return known
  const names = socket.contacts.map((c) => c.name)
  contactNames.set(socket, names)
  return names
}

/** Folds a whole tape with the names of its own socket's contacts. */
export async function foldTape(
  entries: readonly Entry[],
  db: Queryable = pool(),
): Promise<{ state: JobState; socket: Socket | null }> {
  const plain = jobState(entries)
  const socket = await socketById(plain.intake.ticket.socketId, db)
  if (!socket || !entries.some((e) => e.kind === 'looked' && e.body.contacts === 'all'))
    return { state: plain, socket }
  return { state: jobState(entries, namesOf(socket)), socket }
}

/** What a job's tape says at its last line: what is remembered or kept of it, and the lines since. */
export async function jobNow(jobId: string, db: Queryable = pool()): Promise<JobNow> {
  const {
    rows: [last],
  } = await db.query<{ seq: number }>(
    'select coalesce(max(seq), 0) as seq from tape_entry where job_id = $1',
    [jobId],
  )
  const known = kept.get(jobId)
  if (known?.state.seq === last!.seq) return known
  const from = known && known.state.seq < last!.seq ? known : await readSnapshot(jobId, db)
  const now = (from && (await foldFurther(jobId, from, db))) ?? {
    ...(await foldTape(await readTape(jobId, 0, db), db)),
    snapshotSeq: from?.snapshotSeq ?? 0,
  }
  if (db === pool()) remember(jobId, now)
  return now
}

async function foldFurther(jobId: string, from: JobNow, db: Queryable): Promise<JobNow | null> {
  const state = foldOn(from.state, await readTape(jobId, from.state.seq, db), namesOf(from.socket))
  return state && { ...from, state }
}

async function readSnapshot(jobId: string, db: Queryable): Promise<JobNow | null> {
  const { rows } = await db.query<{ seq: number; state: JobState }>(
    'select seq, state from job_snapshot where job_id = $1 and shape = $2',
    [jobId, SHAPE],
  )
  const row = rows[0]
  if (!row || !('intake' in row.state)) return null
  const socket = await socketById(row.state.intake.ticket.socketId, db)
  return { state: row.state, socket, snapshotSeq: row.seq }
}

/** What is kept of a tape and the lines since, whatever this process remembers; null when it has to be folded anew. */
export async function keptState(jobId: string, db: Queryable = pool()): Promise<JobState | null> {
  const from = await readSnapshot(jobId, db)
  return from && ((await foldFurther(jobId, from, db))?.state ?? null)
}

/** Keeps what a tape says beside it. */
export async function saveSnapshot(jobId: string, state: JobState, db: Queryable): Promise<void> {
  await db.query(
    `insert into job_snapshot (job_id, seq, shape, state) values ($1, $2, $3, $4)
     on conflict (job_id) do update set seq = $2, shape = $3, state = $4`,
    [jobId, state.seq, SHAPE, JSON.stringify(state)],
  )
}
