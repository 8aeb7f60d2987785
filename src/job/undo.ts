import type { Entry } from '@/core/job/job-state'
import { struckBy } from '@/core/tape/line'
const keepOut: ReadonlySet<Entry['kind']> = new Set(['strike', 'clock', 'photo', 'consent', 'hand-back'])

/** The entry that undo would strike: my newest that counts. Signatures, photos and hand-back are struck by hand, with a reason. */
export function undoable(entries: readonly Entry[], me: string): Entry | null {
  const struck = struckBy(entries)
  return entries.findLast((e) => e.by === me && !keepOut.has(e.kind) && !struck.has(e.seq)) ?? null
}

/** The undo that redo would strike: my newest undo, if I have entered nothing since. */
export function redoable(entries: readonly Entry[], me: string): Entry | null {
  const struck = struckBy(entries)
  const latest = entries.findLast(
    (e) =>
      e.by === me &&
      e.kind !== 'clock' &&
      !struck.has(e.seq) &&
      !(e.kind === 'strike' && e.body.why === 'redo'),
  )
  return latest?.kind === 'strike' && latest.body.why === 'undo' ? latest : null
}
