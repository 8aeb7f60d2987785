import { sayEntry } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import { writeCsv } from '@/tables/write-csv'

const columns = ['line', 'at', 'by', 'kind', 'says', 'strikes', 'body'] as const

/** A tape as CSV: what each line says, and its body as JSON; a line that was struck stays, and the one that struck it names it. */
export const tapeCsv = (entries: readonly Entry[]): string =>
  writeCsv(
    columns,
    entries.map((e) => [e.seq, e.at, e.by, e.kind, sayEntry(e), e.strikes, JSON.stringify(e.body)]),
  )
