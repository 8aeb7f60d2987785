import Papa from 'papaparse'
import type { Finding, Row } from '@/core/finding'

export interface Csv {
  readonly rows: readonly Row[]
  readonly columns: readonly string[]
  /** Lines with more or fewer values than columns. */
  readonly uneven: readonly Finding[]
}

/** Reads a table as text: comma, semicolon, tab or bar; with or without a byte-order mark. */
export function readCsv(text: string): Csv {
  const parsed = Papa.parse<Row>(text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n'), {
    header: true,
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
    transformHeader: (name) => name.trim().toLowerCase(),
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
