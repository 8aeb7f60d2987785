import type { Bodies } from '@/core/slices'
import { CODE, notACode } from '@/core/triage/instruments/code'
import { missingColumns, notANumber, numberIn } from '@/core/tables/finding'
import { readCsv } from '@/tables/read-csv'

const MOST = 500

/** A recording of codes from CSV with `s` and `code`; the first thing that is wrong, with its line, or the run. */
export function readCodeRun(text: string): { readonly run: Bodies['codes'] } | { readonly fault: string } {
  const { rows, columns, uneven } = readCsv(text)
  const missing = missingColumns(columns, ['s', 'code'])
  if (missing) return { fault: missing.text }
  if (uneven[0]) return { fault: `line ${uneven[0].line}: ${uneven[0].text}` }
  if (rows.length === 0) return { fault: 'the table has a header but no codes' }
  const codes: string[] = []
  const atS: number[] = []
  for (const [i, row] of rows.entries()) {
    const line = `line ${i + 2}`
    const code = (row.code ?? '').trim().toUpperCase()
    const s = numberIn((row.s ?? '').trim())
    if (!CODE.test(code)) return { fault: `${line}, code: ${notACode(row.code ?? '')}` }
    if (s === null || s < 0)
      return { fault: `${line}, s: ${notANumber(row.s ?? '')} of seconds since power-on` }
    if (s < (atS.at(-1) ?? 0))
      return { fault: `${line}, s: time runs backwards, ${s} s after ${atS.at(-1)} s; sort the rows` }
    if (code === codes.at(-1)) continue
    codes.push(code)
    atS.push(s)
  }
  if (codes.length > MOST)
    return { fault: `${codes.length} changes of code; the most taken is ${MOST}: keep one start` }
  return { run: { codes, atS, watchedS: numberIn((rows.at(-1)!.s ?? '').trim())! } }
}
