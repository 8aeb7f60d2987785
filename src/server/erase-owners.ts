import 'server-only'
import { eraseDue } from '@/data/retention'

const SIX_HOURS = 6 * 3_600_000
const SOON = 10_000

/** Now and every six hours: owners who have been kept long enough are erased. A database that is not there yet is asked again soon. */
export function eraseOwnersWhenDue(): void {
  eraseDue(new Date().toISOString()).then(
    () => setTimeout(eraseOwnersWhenDue, SIX_HOURS).unref(),
    (error: unknown) => {
      process.stderr.write(`owners who are due could not be erased yet: ${String(error)}\n`)
      setTimeout(eraseOwnersWhenDue, SOON).unref()
    },
  )
}
