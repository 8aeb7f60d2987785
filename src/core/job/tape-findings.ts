import type { Entry } from './entry'
import { lineFault } from './line-fault'

export interface TapeFinding {
  readonly line: number
  readonly field: string
  readonly text: string
}

/**
 * What is wrong with a whole tape from outside: numbering, doubled ids, and whatever `lineFault` finds of a line.
 * Findings, never an exception; at most 40.
 */
export function tapeFindings(
  entries: readonly Entry[],
  hasFile: (sha256: string) => boolean = () => true,
): TapeFinding[] {
  const findings: TapeFinding[] = []
  const ids = new Map<string, number>()
  const say = (line: number, field: string, text: string) => findings.push({ line, field, text })
  entries.forEach((entry, i) => {
    if (findings.length >= 40) return
    if (entry.seq !== i + 1) say(entry.seq, 'seq', `line ${i + 1} is numbered ${entry.seq}`)
    const other = ids.get(entry.id)
    if (other !== undefined) say(entry.seq, 'id', `it has the id of line ${other}`)
    ids.set(entry.id, entry.seq)
    const fault = lineFault(entry, (seq) => (seq < entry.seq ? entries[seq - 1] : undefined), hasFile)
    if (fault) say(entry.seq, fault.field, fault.text)
  })
  return findings.slice(0, 40)
}
