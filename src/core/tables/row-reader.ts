import { missingColumns, notANumber, numberIn } from './finding'
import type { Finding, Row } from './finding'

const MOST_ROWS = 20_000

/** Reads each row with what it takes, and gathers what is wrong. */
export class RowReader {
  readonly findings: Finding[] = []
  constructor(
    private readonly row: Row,
    private readonly line: number,
  ) {}

  fault(field: string, text: string): void {
    this.findings.push({ level: 'error', line: this.line, field, text })
  }
  text(field: string): string {
    return (this.row[field] ?? '').trim().slice(0, 200)
  }
  orNull(field: string): string | null {
    return this.text(field) || null
  }
  named(field: string): string {
    const text = this.text(field)
    if (text === '') this.fault(field, 'nothing stands here: give it a name')
    if (text.length > 60) this.fault(field, 'is longer than 60 letters')
    return text
  }
  number(field: string, usual: number, min: number, max: number): number {
    const text = this.text(field)
    if (text === '') return usual
    const is = numberIn(text)
    if (is === null) this.fault(field, notANumber(text))
    else if (is < min || is > max) this.fault(field, `${text} is not between ${min} and ${max}`)
    return is ?? usual
  }
  date(field: string): string | null {
    const text = this.text(field)
    if (text === '') return null
    if (!/^\d{4}-\d{2}-\d{2}$/.test(text) || Number.isNaN(Date.parse(text)))
      this.fault(field, `“${text}” is no day: write it as 2026-03-14`)
    return text
  }
  yes(field: string, usual: boolean): boolean {
    const text = this.text(field).toLowerCase()
    if (text === '') return usual
    if (text !== 'yes' && text !== 'no') this.fault(field, `“${text}” is neither yes nor no`)
    return text === 'yes'
  }
  /** Hexadecimal figures; null where nothing stands. */
  hex(field: string, like: string, most = 8): string | null {
    const text = this.text(field).replace(/^0x/i, '').replace(/\s+/g, '')
    if (text === '') return null
    if (/^[0-9a-f]+$/i.test(text) && text.length <= most) return text.toUpperCase()
    this.fault(field, `“${text}” are no hexadecimal figures, like ${like}`)
    return null
  }
  one<T extends string>(field: string, of: readonly T[]): T {
    const text = this.text(field) as T
    if (!of.includes(text)) this.fault(field, `“${text}” is none of: ${of.join(', ')}`)
    return text
  }
  /** Words of a state, such as “unstable”. */
  state(field: string, of: readonly string[]): ReadonlySet<string> {
    const words = this.text(field)
      .split(/[\s,]+/)
      .filter(Boolean)
    for (const w of words) if (!of.includes(w)) this.fault(field, `“${w}” is none of: ${of.join(', ')}`)
    return new Set(words)
  }
}

/** Rows of a table, each read by `read`; findings for bad data, never an exception. */
export function readRows<T>(
  rows: readonly Row[],
  columns: readonly string[],
  needed: readonly string[],
  what: string,
  read: (r: RowReader) => T,
): { readonly rows: readonly T[]; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, needed)
  if (missing) return { rows: [], findings: [missing] }
  if (rows.length === 0 || rows.length > MOST_ROWS)
    return {
      rows: [],
      findings: [
        {
          level: 'error',
          line: rows.length === 0 ? 2 : 0,
          field: 'rows',
          text:
            rows.length === 0
              ? `the table has a header but no ${what}`
              : `${rows.length} ${what}; the most a table may hold is 20,000`,
        },
      ],
    }
  const findings: Finding[] = []
  const all = rows.map((row, i) => {
    const reader = new RowReader(row, i + 2)
    const one = read(reader)
    findings.push(...reader.findings)
    return one
  })
  return { rows: all, findings }
}
