import { chipColumns, chipRows, readChips } from '@/core/firmware/chip/taken-chips'
import type { ChipTable } from '@/core/firmware/chip/taken-chips'
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
import type { CpuTable, ReleaseTable, WayTable } from '@/core/firmware/route/table-csv'
import type { Finding } from '@/core/tables/finding'
import { codeColumns, codeRows, readCodeTable } from '@/core/triage/instruments/code-tape'
import type { CodeTable } from '@/core/triage/instruments/code-tape'
import { readCurrent, readTrace, thinCurve, traceColumns } from '@/core/triage/instruments/current-trace'
import type { CurrentReference } from '@/core/triage/instruments/current-trace'
import { railColumns, railRows, readRailTable } from '@/core/triage/instruments/rail-table'
import type { RailReference } from '@/core/triage/instruments/rail-table'
import { readCsv } from './read-csv'
import { writeCsv } from './write-csv'

/** What can be known of a board model, by kind, and what its table is called. */
export const referenceWords = {
  codes: { what: 'What its codes mean', columns: codeColumns.join(', ') },
  rails: { what: 'The rails of a good one', columns: railColumns.join(', ') },
  current: { what: 'The current of a good one, mains on to settled', columns: traceColumns.join(', ') },
  releases: { what: 'Firmware releases, oldest first', columns: releaseColumns.join(', ') },
  cpus: { what: 'CPUs, and the releases that start them', columns: cpuColumns.join(', ') },
  ways: { what: 'Ways a release gets into the chip', columns: wayColumns.join(', ') },
  chips: { what: 'Firmware chips it is known to take, its own first', columns: chipColumns.join(', ') },
} as const
export type Kind = keyof typeof referenceWords

type Reference = CodeTable | RailReference | CurrentReference | ReleaseTable | CpuTable | WayTable | ChipTable

export interface ReadReference {
  readonly body: Reference | null
  readonly findings: readonly Finding[]
  /** What was read, in a sentence. */
  readonly say: string
}

/** A reference from its CSV, and what is wrong with it. */
export function readReference(kind: Kind, name: string, csv: string): ReadReference {
  const { rows, columns, uneven } = readCsv(csv)
  const done = <T extends Reference>(
    body: T | null,
    findings: readonly Finding[],
    say: (body: T) => string,
  ) => ({
    body: uneven.length ? null : body,
    findings: [...findings, ...uneven],
    say: body && !uneven.length ? say(body) : '',
  })
  switch (kind) {
    case 'codes': {
      const { table, findings } = readCodeTable(name, rows, columns)
      return done(table, findings, (t) => `${t.codes.length} codes`)
    }
    case 'rails': {
      const { reference, findings } = readRailTable(name, rows, columns)
      return done(reference, findings, (r) => `${Object.keys(r.rails).length} rails`)
    }
    case 'current': {
      const { trace, findings } = readTrace(rows, columns)
      const body = trace && { name, reading: readCurrent(trace), curve: thinCurve(trace) }
      return done(body, findings, (c) => c.reading.say)
    }
    case 'releases': {
      const { of, findings } = readReleases(name, rows, columns)
      return done(of, findings, ({ releases }) => `${releases.length} releases`)
    }
    case 'cpus': {
      const { of, findings } = readCpus(name, rows, columns)
      return done(of, findings, ({ support }) => `${new Set(support.map((s) => s.cpu)).size} CPUs`)
    }
    case 'ways': {
      const { of, findings } = readWays(name, rows, columns)
      return done(of, findings, ({ ways }) => `${ways.length} ways`)
    }
    case 'chips': {
      const { of, findings } = readChips(name, rows, columns)
      return done(of, findings, ({ chips }) => `${chips.length} chips`)
    }
  }
}

/** A reference back as CSV, in the columns it is read in. */
export function referenceCsv(kind: Kind, body: Reference): string {
  switch (kind) {
    case 'codes':
      return writeCsv(codeColumns, codeRows(body as CodeTable))
    case 'rails':
      return writeCsv(railColumns, railRows(body as RailReference))
    case 'releases':
      return writeCsv(releaseColumns, releaseRows(body as ReleaseTable))
    case 'cpus':
      return writeCsv(cpuColumns, cpuRows(body as CpuTable))
    case 'chips':
      return writeCsv(chipColumns, chipRows(body as ChipTable))
    case 'ways':
      return writeCsv(wayColumns, wayRows(body as WayTable))
    case 'current': {
      const { s, a } = (body as CurrentReference).curve
      return writeCsv(
        traceColumns,
        s.map((t, i) => [String(t), String(a[i])]),
      )
    }
  }
}
