import { chipColumns, chipRows, readChips } from '@/core/firmware/chip/taken-chips'
import {
  cpuColumns,
  cpuRows,
  readCpus,
  readReleases,
  readWays,
  releaseColumns,
  releaseRows,
  wayColumns,
  wayRows,
} from '@/core/firmware/route/table-csv'
import { sayWay } from '@/core/firmware/route/way'
import type { ReferenceKind, References } from '@/core/job/references'
import type { Finding, Row } from '@/core/tables/finding'
import { codeColumns, codeRows, readCodeTable } from '@/core/triage/instruments/code-tape'
import { readShows, sayShows, showsColumns, showsRows } from '@/core/triage/model/shows'
import { readCurrent, readTrace, thinCurve, traceColumns } from '@/core/triage/instruments/current-trace'
import { railColumns, railRows, readRailTable } from '@/core/triage/instruments/rail-table'
import { readCsv } from './read-csv'
import { writeCsv } from './write-csv'

interface Spec<Body> {
  /** What its table is called. */
  readonly what: string
  readonly columns: readonly string[]
  readonly read: (
    name: string,
    rows: readonly Row[],
    columns: readonly string[],
  ) => { readonly body: Body | null; readonly findings: readonly Finding[] }
  readonly rows: (body: Body) => string[][]
  /** What is in it, in a few words. */
  readonly say: (body: Body) => string
}

/** What can be known of a board model: how each kind is read, written and called. */
const specs: { readonly [K in ReferenceKind]: Spec<NonNullable<References[K]>> } = {
  shows: {
    what: 'What it can show',
    columns: showsColumns,
    read: readShows,
    rows: showsRows,
    say: sayShows,
  },
  codes: {
    what: 'What its codes mean',
    columns: codeColumns,
    read: (...of) => {
      const { table: body, findings } = readCodeTable(...of)
      return { body, findings }
    },
    rows: codeRows,
    say: ({ codes }) => `${codes.length} codes`,
  },
  rails: {
    what: 'The rails of a good one',
    columns: railColumns,
    read: (...of) => {
      const { reference: body, findings } = readRailTable(...of)
      return { body, findings }
    },
    rows: railRows,
    say: ({ rails }) => `${Object.keys(rails).length} rails`,
  },
  current: {
    what: 'The current of a good one, mains on to settled',
    columns: traceColumns,
    read: (name, rows, columns) => {
      const { trace, findings } = readTrace(rows, columns)
      return { body: trace && { name, reading: readCurrent(trace), curve: thinCurve(trace) }, findings }
    },
    rows: ({ curve: { s, a } }) => s.map((t, i) => [String(t), String(a[i])]),
    say: ({ reading }) => reading.say,
  },
  releases: {
    what: 'Firmware releases, oldest first',
    columns: releaseColumns,
    read: readReleases,
    rows: releaseRows,
    say: ({ releases }) => `${releases.length} releases, the newest ${releases.at(-1)!.name}`,
  },
  cpus: {
    what: 'CPUs, and the releases that run them',
    columns: cpuColumns,
    read: readCpus,
    rows: cpuRows,
    say: ({ support }) => `${new Set(support.map((s) => s.cpu)).size} CPUs`,
  },
  ways: {
    what: 'Ways a release gets into the chip',
    columns: wayColumns,
    read: readWays,
    rows: wayRows,
    say: ({ ways }) => ways.map(sayWay).join('; '),
  },
  chips: {
    what: 'Firmware chips it is known to take, its own first',
    columns: chipColumns,
    read: readChips,
    rows: chipRows,
    say: ({ chips }) => chips.map((c) => c.name).join(', '),
  },
}
/** A kind and its body go together; TypeScript cannot tell that from a variable kind. */
const specOf = (kind: ReferenceKind) => specs[kind] as unknown as Spec<NonNullable<References[ReferenceKind]>>

/** What a kind of table is called, and its columns. */
export const referenceWords = (kind: ReferenceKind): Pick<Spec<never>, 'what' | 'columns'> => specOf(kind)

export interface ReadReference {
  readonly body: References[ReferenceKind]
  readonly findings: readonly Finding[]
  /** What was read, in a sentence. */
  readonly say: string
}

/** A reference from its CSV, and what is wrong with it. */
export function readReference(kind: ReferenceKind, name: string, csv: string): ReadReference {
  const { rows, columns, uneven } = readCsv(csv)
  const { body: read, findings } = specOf(kind).read(name, rows, columns)
  const body = uneven.length > 0 ? null : read
  return { body, findings: [...findings, ...uneven], say: body ? specOf(kind).say(body) : '' }
}

/** What is kept of a kind, in a few words, with the name of its table. */
export const sayReference = (kind: ReferenceKind, body: NonNullable<References[ReferenceKind]>): string =>
  [specOf(kind).say(body), body.name].filter(Boolean).join(', ')

/** A reference back as CSV, in the columns it is read in. */
export const referenceCsv = (kind: ReferenceKind, body: NonNullable<References[ReferenceKind]>): string =>
  writeCsv(specOf(kind).columns, specOf(kind).rows(body))
