import { folder, specsOf } from '../tape/fold'
import type { StateOf } from '../tape/fold'
import { lineFault as faultOf, namedLines, subjectsOf, tapeFindings as findingsOf } from '../tape/integrity'
import type { LineFault, TapeFinding } from '../tape/integrity'
import type { Line } from '../tape/line'
import { asReadToday } from '../tape/upcast'
import { slices } from '../slices'
import type { Bodies, Kind } from '../slices'

/** One line of a job's tape. */
export type Entry = { [K in Kind]: Line<K, Bodies[K]> }[Kind]

/** Everything the tape says now, by slice. Derived, never edited: of the same tape it is always the same. */
export type JobState = StateOf<typeof slices>

const specs = specsOf(slices)
const jobFold = folder(slices)

export const kinds = [...specs.keys()] as readonly Kind[]

/**
 * Folds a tape into what it says now.
 * @param contactNames of the job's socket, for “all looked at”
 */
export const jobState = (lines: readonly Entry[], contactNames: readonly string[] = []): JobState =>
  jobFold.fold(lines, { contactNames })

/** Folds further lines on; null when it is a matter of the whole tape: one of them strikes, or names another socket. */
export function foldOn(
  from: JobState,
  lines: readonly Entry[],
  contactNames: readonly string[] = [],
): JobState | null {
  if (lines.some((l) => l.kind === 'ticket' && l.body.set.socketId !== undefined)) return null
  return jobFold.foldOn(from, lines, { contactNames })
}

type Unplaced = Pick<Entry, 'kind' | 'body' | 'strikes'>
const specOf = ({ kind }: Pick<Entry, 'kind'>) => specs.get(kind)!

/** A line as it is read today. */
export const asRead = (entry: Entry): Entry => asReadToday(specs, entry) as Entry

/** A line as it is read at the bench. */
export function sayEntry(entry: Entry): string {
  const read = asRead(entry)
  return specOf(read).words(read)
}

/** The station a line belongs to, where it belongs to one. */
export const stationOf = (entry: Pick<Entry, 'kind'>): string | null => specOf(entry).opens ?? null

/** The contacts a line names. */
export const contactsOf = (entry: Pick<Entry, 'kind' | 'body'>): readonly string[] =>
  specOf(entry).contacts?.(entry.body) ?? []

/** Hashes of the files a line names. */
export const filesOf = (entry: Pick<Entry, 'kind' | 'body'>): readonly string[] =>
  (specOf(entry).files?.(entry.body) ?? []).map((f) => f.sha256)

/** What a line is about, so that two people writing about the same thing at once can be told. */
export const subjects = (entry: Unplaced): readonly string[] => subjectsOf(specs, entry)

/** Lines another line answers or strikes. */
export const linesNamed = (entry: Unplaced): readonly number[] => namedLines(specs, entry)

export const lineFault = (
  entry: Entry,
  lineAt: (seq: number) => Entry | undefined,
  hasFile: (sha256: string) => boolean,
): LineFault | null => faultOf(specs, entry, lineAt, hasFile)

export const tapeFindings = (
  entries: readonly Entry[],
  hasFile?: (sha256: string) => boolean,
): TapeFinding[] => findingsOf(specs, entries, hasFile)
