/** Something wrong (or odd) in a table, with where and the mend. */
export interface Finding {
  readonly level: 'error' | 'warning'
  /** Line of the file, the header being 1; 0 for the whole. */
  readonly line: number
  readonly field: string
  readonly text: string
}

/** A row of a table as text, by column name. */
export type Row = Readonly<Record<string, string | undefined>>

/** A number written out in full, or null; “1,5” is none, since a comma may part columns. */
export function numberIn(text: string): number | null {
  const value = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text) ? Number(text) : NaN
  return Number.isFinite(value) ? value : null
}

/** What to say of a text that is no number. */
export const notANumber = (text: string): string =>
  `“${text}” is not a number${/^[+-]?\d+,\d+$/.test(text) ? '; write a decimal point, not a comma' : ''}`

/** The finding for columns that are not there; null when all are. */
export function missingColumns(columns: readonly string[], needed: readonly string[]): Finding | null {
  const missing = needed.filter((column) => !columns.includes(column))
  if (missing.length === 0) return null
  const unsplit = columns.length === 1 && /[;\t|]/.test(columns[0]!)
  const mend = unsplit
    ? 'the columns are not split: save it with commas, semicolons or tabs and one header line'
    : `the header needs ${needed.join(',')}`
  const found = columns.map((c) => `“${c}”`).join(', ') || 'nothing'
  return {
    level: 'error',
    line: 1,
    field: missing.join(', '),
    text: `no column ${missing.map((m) => `“${m}”`).join(', ')}; found ${found}; ${mend}`,
  }
}

/** At most so many findings; the rest is counted. */
export function firstFindings(findings: readonly Finding[], most = 60): Finding[] {
  const shown = findings.slice(0, most)
  if (findings.length > most)
    shown.push({
      level: 'error',
      line: 0,
      field: 'rows',
      text: `and ${findings.length - most} more of the kind`,
    })
  return shown
}
