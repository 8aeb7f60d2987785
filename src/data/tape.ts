import 'server-only'
import { openOffers } from '@/core/intake/slice'
import { currentPass } from '@/core/socket/slice'
import { benchSeconds } from '@/core/work/slice'
import type { Entry, JobState } from '@/core/job/job-state'
import type { Bodies, Kind } from '@/core/slices'
import { contactsOf, subjects, lineFault, jobState } from '@/core/job/job-state'
import { canonical } from '@/core/tape/canonical'
import { handBackHolds } from '@/core/hand-back/holds'
import { speaksAgainst } from '@/core/job/asks-first'
import { powerEvidence } from '@/core/job/power-evidence'
import { powerGate } from '@/core/job/power-gate'
import { nextStation, nextStep, socketWork } from '@/core/job/way'
import { strangerIn } from '@/core/socket/socket'
import type { Socket } from '@/core/socket/socket'
import type { Account } from './accounts'
import { hasFile } from './files'
import { saveState } from './jobs'
import type { BenchLine } from './jobs'
import { pool, transaction } from './pool'
import type { Queryable } from './pool'
import { socketById } from './sockets'

export interface NewEntry {
  readonly id: string
  readonly kind: Kind
  readonly body: Bodies[Kind]
  readonly strikes: number | null
  readonly at: string
  /** The last line the writer had seen. */
  readonly basis: number
}

export type Appended =
  | { readonly result: 'saved'; readonly entries: readonly Entry[] }
  | { readonly result: 'other body' }
  | { readonly result: 'conflict'; readonly entries: readonly Entry[]; readonly with: Entry }
  | { readonly result: 'refused'; readonly field: string; readonly text: string }

interface Row {
  seq: number
  id: string
  at: Date
  by_name: string
  kind: Kind
  v: 1
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

/** The lines of a job's tape after a place, oldest first. */
export async function readTape(jobId: string, after = 0, db: Queryable = pool()): Promise<Entry[]> {
  const { rows } = await db.query<Row>(
    'select seq, id, at, by_name, kind, v, body, strikes from tape_entry where job_id = $1 and seq > $2 order by seq',
    [jobId, after],
  )
  return rows.map(entryOf)
}

/** Folds a tape with the names of its own socket's contacts. */
export async function foldTape(
  entries: readonly Entry[],
  db: Queryable = pool(),
): Promise<{ state: JobState; socket: Socket | null }> {
  const plain = jobState(entries)
  const socket = await socketById(plain.intake.ticket.socketId, db)
  if (!socket || !entries.some((e) => e.kind === 'looked' && e.body.contacts === 'all'))
    return { state: plain, socket }
  return {
    state: jobState(
      entries,
      socket.contacts.map((c) => c.name),
    ),
    socket,
  }
}

export function benchLine(state: JobState, socket: Socket | null, nowIso: string): BenchLine {
  const gate = powerGate(powerEvidence(state, socket))
  const pass = currentPass(state.socket)
  const station = nextStation(state, socket)
  return {
    lamp: gate.lamp,
    reason: gate.reasons[0]?.text ?? '',
    next: nextStep(
      station,
      state,
      socket,
      gate,
      station === 'socket' && socket && pass ? socketWork(socket, pass.marks, state.socket.school) : null,
    ).say,
    station,
    minutes: Math.round(benchSeconds(state.work, nowIso).all / 60),
    minutesPromised: state.intake.ticket.minutesPromised,
    waiting: openOffers(state.intake).length > 0,
  }
}

/** Folds a tape and writes the state beside it, with the tally of its strokes. */
async function foldAndSave(jobId: string, entries: readonly Entry[], db: Queryable): Promise<JobState> {
  const { state, socket } = await foldTape(entries, db)
  await saveState(jobId, state, benchLine(state, socket, new Date().toISOString()), db)
  return state
}

/** Folds the tape again and writes what follows from it, under the job's row lock. */
export async function refold(jobId: string, db: Queryable): Promise<JobState> {
  await db.query('select 1 from job where id = $1 for update', [jobId])
  const state = await foldAndSave(jobId, await readTape(jobId, 0, db), db)
  await tallyStrokes(jobId, state, db)
  return state
}

/** A board that stays on the bench, or was never taken in, is held by nothing. */
const holdsApply = (outcome: string) => outcome !== 'parked' && outcome !== 'withdrawn'

const MAX_FUTURE_MS = 60_000

/**
 * Puts one line on a job's tape, with its state, in one transaction under the job's row lock.
 * The same id again is answered as before; with another body it is refused. If somebody else has written about the
 * same thing since `basis`, nothing is written and both are shown.
 */
export async function appendEntry(jobId: string, by: Account, draft: NewEntry): Promise<Appended> {
  return transaction(async (db) => {
    const { rowCount } = await db.query('select 1 from job where id = $1 for update', [jobId])
    if (!rowCount) return { result: 'refused', field: 'job', text: 'this job is not there any more' }
    const tape = await readTape(jobId, 0, db)
    // Numbered from the tape: what is kept beside it may be older.
    const seq = tape.at(-1)?.seq ?? 0
    const before = tape.find((e) => e.id === draft.id)
    if (before) {
      const same =
        before.kind === draft.kind &&
        before.strikes === draft.strikes &&
        canonical(before.body) === canonical(draft.body)
      return same
        ? { result: 'saved', entries: tape.filter((e) => e.seq > draft.basis) }
        : { result: 'other body' }
    }
    const at = new Date(Math.min(Date.parse(draft.at), Date.now() + MAX_FUTURE_MS))
    const { id, kind, body, strikes } = draft
    const entry = {
      id,
      seq: seq + 1,
      at: at.toISOString(),
      by: by.name,
      kind,
      v: 1,
      body,
      strikes,
    } as unknown as Entry
    const files = await filesNamed(entry, jobId, db)
    const fault = lineFault(
      entry,
      (n) => tape[n - 1],
      (sha) => files.has(sha),
    )
    if (fault) return { result: 'refused', ...fault }
    const others = await writtenByOthers(jobId, draft.basis, by, db)
    const mine = new Set(subjects(entry))
    const other = tape.find((e) => others.has(e.seq) && subjects(e).some((s) => mine.has(s)))
    if (other) return { result: 'conflict', entries: tape.filter((e) => e.seq > draft.basis), with: other }
    const names = contactsOf(entry)
    const socket = names.length > 0 ? (await foldTape(tape, db)).socket : null
    const stranger = socket && strangerIn(socket, names)
    if (stranger) return { result: 'refused', field: 'contact', text: stranger }
    if (entry.kind === 'proof' || entry.kind === 'hand-back') {
      const { state, socket: field } = await foldTape(tape, db)
      const hold = entry.kind === 'hand-back' && holdsApply(entry.body.outcome) && handBackHolds(state)[0]
      if (hold) return { result: 'refused', field: 'outcome', text: `hand-back is held: ${hold.text}` }
      const [against] = speaksAgainst(entry.kind, entry.body, state, field)
      if (against !== undefined && !entry.body.despite?.length)
        return { result: 'refused', field: 'despite', text: `asked first: ${against}` }
    }
    await db.query(
      'insert into tape_entry (job_id, seq, id, at, by_account, by_name, kind, v, body, strikes) values ($1, $2, $3, $4, $5, $6, $7, 1, $8, $9)',
      [jobId, seq + 1, draft.id, at, by.id, by.name, draft.kind, JSON.stringify(draft.body), draft.strikes],
    )
    const state = await foldAndSave(jobId, [...tape, entry], db)
    if (draft.kind === 'stroke' || draft.strikes !== null) await tallyStrokes(jobId, state, db)
    return { result: 'saved', entries: [...tape.filter((e) => e.seq > draft.basis), entry] }
  })
}

/** The pictures a line names that hang on its job. */
async function filesNamed(entry: Entry, jobId: string, db: Queryable): Promise<ReadonlySet<string>> {
  const named =
    entry.kind === 'photo' ? entry.body.file : entry.kind === 'consent' ? entry.body.signature : null
  return new Set(named !== null && (await hasFile(jobId, named, db)) ? [named] : [])
}

/** Lines after a place that other accounts wrote: two people are told apart by who they are, not by what they are called. */
async function writtenByOthers(
  jobId: string,
  after: number,
  by: Account,
  db: Queryable,
): Promise<ReadonlySet<number>> {
  const { rows } = await db.query<{ seq: number }>(
    'select seq from tape_entry where job_id = $1 and seq > $2 and by_account is distinct from $3',
    [jobId, after, by.id],
  )
  return new Set(rows.map((r) => r.seq))
}

/** Writes anew what this job's strokes came to. */
async function tallyStrokes(jobId: string, { socket: { strokes } }: JobState, db: Queryable): Promise<void> {
  await db.query('delete from stroke_tally where job_id = $1', [jobId])
  const told = strokes.filter((s) => s.predictedSnaps !== null)
  if (told.length === 0) return
  await db.query(
    `insert into stroke_tally (job_id, technique, damage, light, magnification, tried, snapped, predicted)
     select $1, s.technique, s.damage, s.light, s.magnification, count(*),
            count(*) filter (where s.result = 'snapped'), sum(s."predictedSnaps" / coalesce(s."snapFactor", 1))
     from jsonb_to_recordset($2::jsonb) as s(technique text, damage text, light text, magnification text,
       result text, "predictedSnaps" float8, "snapFactor" float8)
     group by 2, 3, 4, 5`,
    [jobId, JSON.stringify(told)],
  )
}

/** Lines laid in one statement, so that each is answered in time. */
const LAID_AT_ONCE = 2000

/** Lays a whole tape at once (import and demo): numbered as given, state folded at the end. */
export async function layTape(
  jobId: string,
  entries: readonly Entry[],
  byAccount: string | null,
  db: Queryable,
): Promise<JobState> {
  for (let from = 0; from < entries.length; from += LAID_AT_ONCE)
    await db.query(
      `insert into tape_entry (job_id, seq, id, at, by_account, by_name, kind, v, body, strikes)
       select $1, e.seq, e.id, e.at, $2, e.by, e.kind, 1, e.body, e.strikes
       from jsonb_to_recordset($3::jsonb) as e(seq int, id uuid, at timestamptz, by text, kind text, body jsonb, strikes int)`,
      [jobId, byAccount, JSON.stringify(entries.slice(from, from + LAID_AT_ONCE))],
    )
  return refold(jobId, db)
}
