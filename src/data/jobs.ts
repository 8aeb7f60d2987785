import type { WaitsFor } from '@/core/parts/slice'
import type { Belief } from '@/core/triage/reason/belief'
import 'server-only'
import type { JobState } from '@/core/job/job-state'
import type { Step } from '@/core/board/step'
import { randomUUID } from 'node:crypto'
import type { PowerGate } from '@/core/board/gate-reason'
import { jobNow } from './job-now'
import { pool, transaction } from './pool'
import { revokeLinks } from './job-links'
import { settingsRevision } from './settings-revision'
import type { Queryable } from './pool'

/** The next step of a job, the line and the settings it was computed at. */
export interface KeptStep extends Step {
  readonly seq: number
  readonly settings: number
  /** What was asked for it, as a digest: all that its odds follow from, other jobs of the shop among them. */
  readonly asked?: string
}

/** What the bench list shows of a job without opening its tape. */
export interface BenchLine {
  readonly lamp: PowerGate['lamp']
  readonly reason: string
  readonly minutes: number
  readonly minutesPromised: number | null
  readonly waiting: boolean
  /** What it waits for; left out of lines written before. */
  readonly waitsFor?: WaitsFor | null
}

export interface Job {
  readonly id: string
  readonly tag: string
  readonly seq: number
  readonly board: string
  readonly words: string
  readonly socketId: string | null
  readonly customerId: string | null
  readonly createdAt: string
  readonly promisedAt: string | null
  readonly outcome: string | null
  readonly closedAt: string | null
  readonly bench: BenchLine
  /** What to do next, as computed at a line of the tape; null before it was first computed. */
  readonly nextStep: KeptStep | null
  /** The tape or the settings have gone on since, and a newer step is under way. */
  readonly stepIsOlder: boolean
  /** The settings as they stand. */
  readonly settings: number
  /** A board of the simulated bench, worked to learn. */
  readonly practice: boolean
}

const columns = `id, tag, seq, board, words, socket_id as "socketId", customer_id as "customerId", created_at as "createdAt", promised_at as "promisedAt", outcome, closed_at as "closedAt", bench, next_step as "nextStep", ${settingsRevision} as settings, practice`

interface Row {
  createdAt: Date
  promisedAt: Date | null
  closedAt: Date | null
}

const jobOf = (row: Row & Omit<Job, keyof Row | 'stepIsOlder'>): Job => ({
  ...row,
  stepIsOlder: row.nextStep?.seq !== row.seq || row.nextStep.settings !== row.settings,
  createdAt: row.createdAt.toISOString(),
  promisedAt: row.promisedAt?.toISOString() ?? null,
  closedAt: row.closedAt?.toISOString() ?? null,
})

export async function jobByTag(tag: string, db: Queryable = pool()): Promise<Job | null> {
  if (!/^[A-Za-z]-\d{1,9}$/.test(tag)) return null
  const { rows } = await db.query(`select ${columns} from job where tag = $1`, [tag.toUpperCase()])
  return rows[0] ? jobOf(rows[0]) : null
}

/** The job that has a line of this id, which clients make anew for each. */
export async function jobWithLine(
  lineId: string,
  db: Queryable = pool(),
): Promise<{ readonly id: string; readonly tag: string } | null> {
  const { rows } = await db.query<{ id: string; tag: string }>(
    'select j.id, j.tag from tape_entry t join job j on j.id = t.job_id where t.id = $1 limit 1',
    [lineId],
  )
  return rows[0] ?? null
}

/** Where a page of the bench ends: the promise and the id of its last job. */
export interface BenchPlace {
  readonly promisedAt: string | null
  readonly id: string
}

/** Open jobs in the order of their promise, a page at a time by keyset; the bench orders each page further. */
export async function openJobs(limit = 200, after: BenchPlace | null = null): Promise<Job[]> {
  const { rows } = await pool().query(
    `select ${columns} from job
     where closed_at is null and not practice
       and ($2::uuid is null
            or ($3::timestamptz is not null and ((promised_at, id) > ($3, $2) or promised_at is null))
            or ($3::timestamptz is null and promised_at is null and id > $2))
     order by promised_at nulls last, id limit $1`,
    [limit, after?.id ?? null, after?.promisedAt ?? null],
  )
  return rows.map(jobOf)
}

export async function countOpen(): Promise<number> {
  const { rows } = await pool().query<{ n: number }>(
    'select count(*)::int as n from job where closed_at is null and not practice',
  )
  return rows[0]!.n
}

/** Finished jobs, newest first, by keyset: pass the last line's `closedAt` and `id` for the next page. */
export async function closedJobs(
  options: {
    readonly words?: string
    readonly after?: { readonly closedAt: string; readonly id: string } | null
    readonly limit?: number
  } = {},
): Promise<Job[]> {
  const { rows } = await pool().query(
    `select ${columns} from job
     where closed_at is not null and not practice and outcome is distinct from 'withdrawn'
       and ($1::text is null or (tag || ' ' || board || ' ' || words) ilike '%' || $1 || '%')
       and ($2::timestamptz is null or (closed_at, id) < ($2::timestamptz, $3::uuid))
     order by closed_at desc, id desc limit $4`,
    [
      options.words ? options.words.replace(/[\\%_]/g, '\\$&') : null,
      options.after?.closedAt ?? null,
      options.after?.id ?? null,
      options.limit ?? 40,
    ],
  )
  return rows.map(jobOf)
}

export async function countClosed(): Promise<number> {
  const { rows } = await pool().query<{ n: number }>(
    "select count(*)::int as n from job where closed_at is not null and not practice and outcome is distinct from 'withdrawn'",
  )
  return rows[0]!.n
}

export interface Customer {
  readonly name: string
  readonly contact: string
  readonly erased: boolean
}

export async function customerOf(customerId: string | null): Promise<Customer | null> {
  if (customerId === null) return null
  const { rows } = await pool().query<{ name: string; contact: string; erased_at: Date | null }>(
    'select name, contact, erased_at from customer where id = $1',
    [customerId],
  )
  return rows[0] ? { name: rows[0].name, contact: rows[0].contact, erased: rows[0].erased_at !== null } : null
}

export async function saveCustomer(
  jobId: string,
  name: string,
  contact: string,
  db?: Queryable,
): Promise<void> {
  const save = async (client: Queryable) => {
    const { rows } = await client.query<{ customer_id: string | null }>(
      'select customer_id from job where id = $1 for update',
      [jobId],
    )
    const existing = rows[0]?.customer_id
    const id = existing ?? randomUUID()
    await client.query(
      `insert into customer (id, name, contact) values ($1, $2, $3)
       on conflict (id) do update set name = $2, contact = $3, erased_at = null`,
      [id, name, contact],
    )
    if (!existing) await client.query('update job set customer_id = $2 where id = $1', [jobId, id])
  }
  await (db ? save(db) : transaction(save))
}

/** Erases the owner's name, contact and signature, and closes their links; the technical record stays. */
export async function eraseCustomer(jobId: string): Promise<void> {
  await transaction(async (db) => {
    await db.query(
      `update customer set name = '', contact = '', erased_at = now() where id = (select customer_id from job where id = $1)`,
      [jobId],
    )
    await revokeLinks(jobId, db)
    const { rows } = await db.query<{ sha256: string }>(
      "delete from job_file where job_id = $1 and purpose = 'signature' returning sha256",
      [jobId],
    )
    for (const { sha256 } of rows) {
      await db.query(
        'delete from file f where f.sha256 = $1 and not exists (select 1 from job_file j where j.sha256 = $1) and not exists (select 1 from board_file b where b.sha256 = $1)',
        [sha256],
      )
    }
  })
}

/** A new job with an empty tape; its tag is the next of the shop. The client's id makes a retry harmless. */
export async function createJob(
  id: string,
  createdBy: string,
  db: Queryable = pool(),
  tag: string | null = null,
  practice = false,
): Promise<string> {
  const { rows } = await db.query<{ tag: string }>(
    `insert into job (id, tag, created_by, practice)
     values ($1, coalesce($3, case when $4 then 'P-' || lpad(nextval('practice_tag')::text, 4, '0')
                                   else 'Q-' || lpad(nextval('job_tag')::text, 4, '0') end), $2, $4)
     on conflict (id) do update set id = excluded.id returning tag`,
    [id, createdBy, tag, practice],
  )
  return rows[0]!.tag
}

/** A practice board on the list; over once its fault was shown. */
export interface PracticeBoard {
  readonly tag: string
  readonly words: string
  readonly createdAt: string
  readonly over: boolean
}

/** The newest practice boards, whoever worked them. */
export async function practiceBoards(limit = 30): Promise<PracticeBoard[]> {
  const { rows } = await pool().query<Omit<PracticeBoard, 'createdAt'> & { createdAt: Date }>(
    `select j.tag, j.words, j.created_at as "createdAt", coalesce(h.shown_seq is not null, false) as over
     from job j left join hidden_board h on h.job_id = j.id
     where j.practice order by j.created_at desc, j.id desc limit $1`,
    [limit],
  )
  return rows.map((row) => ({ ...row, createdAt: row.createdAt.toISOString() }))
}

/** An earlier job of the same board, in short. */
export interface EarlierJob {
  readonly tag: string
  readonly at: string
  readonly complaint: string
  readonly outcome: string | null
  readonly mended: readonly string[]
  readonly parts: readonly string[]
  readonly contacts: number
  readonly advice: readonly string[]
}

/** What was done when this board was here before, newest first; the same board is told by its serial number. */
export async function earlierJobs(job: Job, serial: string): Promise<EarlierJob[]> {
  if (serial.trim() === '') return []
  const { rows } = await pool().query<{ id: string; tag: string; at: Date; outcome: string | null }>(
    `select id, tag, coalesce(closed_at, created_at) as at, outcome from job
     where serial = $1 and not practice and outcome is distinct from 'withdrawn' and id <> $2 and created_at < $3
     order by created_at desc limit 5`,
    [serial, job.id, job.createdAt],
  )
  return Promise.all(
    rows.map(async ({ id, tag, at, outcome }) => {
      const { state } = await jobNow(id)
      return {
        tag,
        at: at.toISOString(),
        complaint: state.intake.ticket.complaint,
        outcome,
        mended: state.triage.mended.map((m) => m.fault),
        parts: state.parts.noted
          .filter((p) => p.did === 'fitted')
          .map((p) => [p.ref, p.value].filter(Boolean).join(' ')),
        contacts: new Set(state.socket.strokes.map((s) => s.contact)).size,
        advice: state.handBack.advice,
      }
    }),
  )
}

/** Keeps the next step of a job and the odds it follows from, unless those of a later line are kept. */
export async function saveNextStep(
  jobId: string,
  step: KeptStep,
  belief: Belief | null = null,
  db: Queryable = pool(),
): Promise<void> {
  await db.query(
    `update job set next_step = $3, belief = $4
      where id = $1 and coalesce((next_step ->> 'seq')::int, 0) <= $2`,
    [jobId, step.seq, JSON.stringify(step), belief && JSON.stringify(belief)],
  )
}

/** The next step of a job with its odds, where it was computed at this line from just this; lists do without. */
export async function keptAdvice(
  jobId: string,
  { seq, asked }: Required<Pick<KeptStep, 'seq' | 'asked'>>,
  db: Queryable = pool(),
): Promise<{ readonly nextStep: KeptStep; readonly belief: Belief | null } | null> {
  const { rows } = await db.query<{ nextStep: KeptStep; belief: Belief | null }>(
    `select next_step as "nextStep", belief from job
      where id = $1 and (next_step ->> 'seq')::int = $2 and next_step ->> 'asked' = $3`,
    [jobId, seq, asked],
  )
  return rows[0] ?? null
}

/** A job by its id. */
export async function jobById(id: string, db: Queryable = pool()): Promise<Job | null> {
  const { rows } = await db.query(`select ${columns} from job where id = $1`, [id])
  return rows[0] ? jobOf(rows[0]) : null
}

/** Tags of the open jobs whose board is of a model. */
export async function openJobsOn(boardModelId: string): Promise<string[]> {
  const { rows } = await pool().query<{ tag: string }>(
    `select j.tag from job j
     join board_model b on j.board = concat_ws(' ', b.maker, b.name, case when b.revision <> '' then 'rev ' || b.revision end)
     where b.id = $1 and j.closed_at is null and not j.practice order by j.tag`,
    [boardModelId],
  )
  return rows.map((r) => r.tag)
}

/** Writes what the lists show of a job beside its tape. */
export async function saveJobRow(
  jobId: string,
  state: JobState,
  bench: BenchLine,
  db: Queryable,
): Promise<void> {
  const t = state.intake.ticket
  const board = [t.board, t.revision && `rev ${t.revision}`].filter(Boolean).join(' ')
  const words = [t.use, t.complaint].filter(Boolean).join(': ')
  const closedAt =
    state.handBack.done && state.handBack.done.outcome !== 'parked' ? state.handBack.done.at : null
  await db.query(
    'update job set seq = $2, serial = $3, board = $4, words = $5, socket_id = $6, promised_at = $7, outcome = $8, closed_at = $9, bench = $10 where id = $1',
    [
      jobId,
      state.seq,
      t.serial,
      board,
      words,
      t.socketId,
      t.promisedAt,
      state.handBack.done?.outcome ?? null,
      closedAt,
      JSON.stringify(bench),
    ],
  )
}

export async function allJobIds(): Promise<string[]> {
  const { rows } = await pool().query<{ id: string }>('select id from job order by id')
  return rows.map((r) => r.id)
}
