import { sayEntry } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'

/** What a line says; looks of one inspection that follow each other are said as one, with their count. */
export function wordsOf(entry: Entry, count: number | 'all' | null): string {
  if (count === null) return sayEntry(entry)
  return count === 'all'
    ? 'inspection: whole field'
    : `inspection: ${count} ${count === 1 ? 'contact' : 'contacts'}`
}

export interface Shown {
  readonly entry: Entry
  /** Contacts of an inspection that this line stands for. */
  readonly count: number | 'all' | null
  readonly index: number
}

/** The lines as they are shown: the looks of a sweep are one line that counts. */
export function shownLines(lines: readonly Entry[], struck: ReadonlyMap<number, unknown>): Shown[] {
  const shown: Shown[] = []
  lines.forEach((entry, index) => {
    if (entry.kind !== 'looked' || struck.has(entry.seq)) return shown.push({ entry, count: null, index })
    const { contacts } = entry.body
    const size = contacts === 'all' ? ('all' as const) : contacts.length
    const before = shown.at(-1)
    if (before?.entry.kind === 'looked' && before.count !== null && before.entry.by === entry.by) {
      shown.pop()
      const all = size === 'all' || before.count === 'all'
      return shown.push({ entry, count: all ? 'all' : size + (before.count as number), index })
    }
    return shown.push({ entry, count: size, index })
  })
  return shown
}
