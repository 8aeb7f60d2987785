import 'server-only'
import { randomUUID } from 'node:crypto'
import type { Bodies, Kind } from '@/core/slices'
import type { Account } from '@/data/accounts'
import { appendEntry } from '@/data/tape'
import { checkNewEntry } from '@/entry-schemas/entry-schema'
import { adviseSoon } from '@/server/advise'

/**
 * A line by somebody without an account, through a link: written with the account that made the link, in their name.
 * @param basis the last line they saw
 * @returns what is wrong, or nothing
 */
export async function putByLink<K extends Kind>(
  link: { readonly jobId: string; readonly by: Account },
  name: string,
  basis: number,
  kind: K,
  body: Bodies[K],
): Promise<string> {
  const at = new Date().toISOString()
  const checked = checkNewEntry({ id: randomUUID(), kind, body, strikes: null, at, basis })
  if (!checked.ok) return checked.fault.text
  const done = await appendEntry(link.jobId, { ...link.by, name }, checked.value)
  if (done.result !== 'saved') return 'The workshop wrote about it at this moment. Look again, then answer.'
  adviseSoon(link.jobId)
  return ''
}
