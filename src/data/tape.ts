import { waitsFor } from '@/core/parts/slice'
import 'server-only'
import { openOffers } from '@/core/intake/slice'
import { benchSeconds } from '@/core/work/slice'
import type { Entry, JobState } from '@/core/job/job-state'
import type { Bodies, Kind } from '@/core/slices'
import { contactsOf, filesOf, foldOn, lineFault, linesNamed, subjects } from '@/core/job/job-state'
import type { LineFault } from '@/core/tape/integrity'
import { canonical } from '@/core/tape/canonical'
import { nothingRound } from '@/core/job/advice-setting'
import type { AdviceSetting } from '@/core/job/advice-setting'
import { handBackBlockers } from '@/core/job/stations-say'
import { speaksAgainst } from '@/core/job/asks-first'
import { gateOf } from '@/core/job/gate'
import { unknownContact } from '@/core/socket/model/socket'
import type { Socket } from '@/core/socket/model/socket'
import type { Account } from './accounts'
import { settingOfJob } from './advice-setting'
import { hasFile } from './files'
import { foldTape, jobNow, namesOf, remember, saveSnapshot, SNAPSHOT_EVERY } from './job-now'
import type { JobNow } from './job-now'
import { saveJobRecord } from './job-records'
import { saveJobRow } from './jobs'
import type { BenchLine } from './jobs'
import { transaction } from './pool'
import { lineById, linesOfOthers, readLines, readTape } from './read-tape'
import type { Queryable } from './pool'
import { settingsChanged } from './settings-revision'
import { movesTestShelf } from './stock'

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

/** What the lists show of a job, as far as it follows at once; what to do next is computed off the request. */
export function benchLine(state: JobState, socket: Socket | null, nowIso: string): BenchLine {
  const gate = gateOf(state, socket)
  return {
    lamp: gate.lamp,
    reason: gate.reasons[0]?.text ?? '',
    minutes: Math.round(benchSeconds(state.work, nowIso).all / 60),
    minutesPromised: state.intake.ticket.minutesPromised,
    waiting: openOffers(state.intake).length > 0,
    waitsFor: waitsFor(state.parts),
  }
}

/** Folds the tape again and writes what follows from it, under the job's row lock. */
export async function refold(jobId: string, db: Queryable): Promise<JobState> {
  await db.query('select 1 from job where id = $1 for update', [jobId])
  const { state, socket } = await foldTape(await readTape(jobId, 0, db), db)
  await saveDerived(jobId, { state, socket, snapshotSeq: 0 }, true, db)
  await tallyStrokes(jobId, state, db)
  return state
}

/** Writes what follows from a tape beside it: what the lists show, and a snapshot when one is due. */
async function saveDerived(jobId: string, now: JobNow, whole: boolean, db: Queryable): Promise<JobNow> {
  const { state, socket, snapshotSeq } = now
  await saveJobRow(jobId, state, benchLine(state, socket, new Date().toISOString()), db)
  if (whole || state.handBack.done) await saveJobRecord(jobId, state, db)
  if (!whole && state.seq - snapshotSeq < SNAPSHOT_EVERY) return now
  await saveSnapshot(jobId, state, db)
  return { ...now, snapshotSeq: state.seq }
}

/** A board that stays on the bench, or was never taken in, is held by nothing. */
const holdsApply = (outcome: string) => outcome !== 'parked' && outcome !== 'withdrawn'

const MAX_FUTURE_MS = 60_000

/**
 * Puts one line on a job's tape, with what follows from it, in one transaction under the job's row lock. It reads what
 * the tape says so far and the lines it has to check, not the whole tape: a line costs the same on a long job.
 * The same id again is answered as before; with another body it is refused. If somebody else has written about the
 * same thing since `basis`, nothing is written and both are shown.
 */
export async function appendEntry(jobId: string, by: Account, draft: NewEntry): Promise<Appended> {
  let written: JobNow | null = null
  // Read before the row is locked: it takes other connections.
  const setting = draft.kind === 'hand-back' ? await settingOfJob(jobId) : nothingRound
  const answer = await transaction(async (db): Promise<Appended> => {
    const { rowCount } = await db.query('select 1 from job where id = $1 for update', [jobId])
    if (!rowCount) return { result: 'refused', field: 'job', text: 'this job is not there any more' }
    const since = () => readTape(jobId, draft.basis, db)
    const before = await lineById(jobId, draft.id, db)
    if (before) {
      const same =
        before.kind === draft.kind &&
        before.strikes === draft.strikes &&
        canonical(before.body) === canonical(draft.body)
      return same ? { result: 'saved', entries: await since() } : { result: 'other body' }
    }
    const now = await jobNow(jobId, db)
    const at = new Date(Math.min(Date.parse(draft.at), Date.now() + MAX_FUTURE_MS))
    const { id, kind, body, strikes } = draft
    // Numbered from the tape: what is kept beside it may be older.
    const seq = now.state.seq + 1
    const entry = {
      id,
      seq,
      at: at.toISOString(),
      by: by.name,
      kind,
      v: 1,
      body,
      strikes,
    } as unknown as Entry
    const fault = await faultOf(entry, jobId, db)
    if (fault) return { result: 'refused', ...fault }
    const mine = new Set(subjects(entry))
    const others = await linesOfOthers(jobId, draft.basis, by.id, db)
    const other = others.find((e) => subjects(e).some((s) => mine.has(s)))
    if (other) return { result: 'conflict', entries: await since(), with: other }
    const stranger = now.socket && unknownContact(now.socket, contactsOf(entry))
    if (stranger) return { result: 'refused', field: 'contact', text: stranger }
    const against = speaksAgainstLine(entry, now, setting)
    if (against) return { result: 'refused', ...against }
    await db.query(
      'insert into tape_entry (job_id, seq, id, at, by_account, by_name, kind, v, body, strikes) values ($1, $2, $3, $4, $5, $6, $7, 1, $8, $9)',
      [jobId, seq, id, at, by.id, by.name, kind, JSON.stringify(body), strikes],
    )
    const further = foldOn(now.state, [entry], namesOf(now.socket))
    const next: JobNow = further
      ? { ...now, state: further }
      : { ...now, ...(await foldTape(await readTape(jobId, 0, db), db)) }
    written = await saveDerived(jobId, next, !further, db)
    if (kind === 'stroke' || strikes !== null) await tallyStrokes(jobId, next.state, db)
    if (await movesTestShelf(jobId, entry, db)) await settingsChanged(db)
    return { result: 'saved', entries: draft.basis === seq - 1 ? [entry] : await since() }
  })
  if (written) remember(jobId, written)
  return answer
}

/** What is wrong between a line and the lines and files it names. */
async function faultOf(entry: Entry, jobId: string, db: Queryable): Promise<LineFault | null> {
  const named = new Map((await readLines(jobId, linesNamed(entry), db)).map((e) => [e.seq, e]))
  const files = new Set<string>()
  for (const sha256 of filesOf(entry)) if (await hasFile(jobId, sha256, db)) files.add(sha256)
  return lineFault(
    entry,
    (n) => named.get(n),
    (sha256) => files.has(sha256),
  )
}

type AsksFirst = Extract<Entry, { kind: 'proof' | 'cold start' | 'temperature' | 'hand-back' }>
const asksFirst = (entry: Entry): entry is AsksFirst =>
  ['proof', 'cold start', 'temperature', 'hand-back'].includes(entry.kind)

/** What holds a hand-back, or has to be asked about before a line is written. */
function speaksAgainstLine(
  entry: Entry,
  { state, socket }: JobNow,
  setting: AdviceSetting,
): LineFault | null {
  if (!asksFirst(entry)) return null
  const hold = entry.kind === 'hand-back' && holdsApply(entry.body.outcome) && handBackBlockers(state)[0]
  if (hold) return { field: 'outcome', text: `hand-back is held: ${hold.text}` }
  const [against] = speaksAgainst(entry.kind, entry.body, state, socket, setting)
  return against !== undefined && !entry.body.despite?.length
    ? { field: 'despite', text: `asked first: ${against}` }
    : null
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
