import Papa from 'papaparse'
import type { Finding, Row } from '@/core/tables/finding'
import { unmarked } from './write-csv'

export interface Csv {
  readonly rows: readonly Row[]
  readonly columns: readonly string[]
  /** Lines with more or fewer values than columns. */
  readonly uneven: readonly Finding[]
}

/** Tables that are read have at most so many lines and columns. */
const MAX_ROWS = 500_000
const MAX_COLUMNS = 200

/** Why a text is too much of a table to be read, or null: counted before anything is parsed. */
function tooLarge(text: string): string | null {
  let rows = 1
  let marks = 0
  let line = 0
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    if (code === 10 || code === 13) {
      if (code === 10) rows++
      line = 0
    } else if (code === 44 || code === 59 || code === 9 || code === 124) {
      line++
      if (line > marks) marks = line
    }
  }
  if (marks >= MAX_COLUMNS) return `a line has more than ${MAX_COLUMNS} values`
  return rows > MAX_ROWS ? `it has more than ${MAX_ROWS.toLocaleString('en')} lines` : null
}

/** Reads a table as text: comma, semicolon, tab or bar; with or without a byte-order mark. */
export function readCsv(text: string): Csv {
  const much = tooLarge(text)
  if (much)
    return {
      rows: [],
      columns: [],
      uneven: [{ level: 'error', line: 0, field: 'rows', text: `${much}: it is no table of this kind` }],
    }
  const parsed = Papa.parse<Row>(text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n'), {
    header: true,
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
    transformHeader: (name) => name.trim().toLowerCase(),
    transform: unmarked,
  })
  const uneven = parsed.errors
    .filter((e) => e.type === 'FieldMismatch')
    .slice(0, 20)
    .map((e) => ({
      level: 'error' as const,
      line: (e.row ?? 0) + 2,
      field: 'row',
      text: e.code === 'TooManyFields' ? 'more values than columns' : 'fewer values than columns',
    }))
  return { rows: parsed.data, columns: parsed.meta.fields ?? [], uneven }
}
