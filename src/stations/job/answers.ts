import 'server-only'
import { jobByTag } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import type { Account } from '@/data/accounts'
import { sameOrigin, whoIs } from './signed-in'

/** Every refusal of a route handler: what happened, which field, what to do. */
export const refuse = (status: number, text: string, field = '') => Response.json({ error: { field, text } }, { status })

/** Runs a route handler for a signed-in account and an existing job. */
export async function forJob(tag: string, request: Request, work: (job: Job, account: Account) => Promise<Response>): Promise<Response> {
  try {
    const account = await whoIs()
    if (!account) return refuse(401, 'Your sign-in has run out. Nothing is lost: sign in again and it is sent.')
    if (request.method !== 'GET' && !(await sameOrigin())) return refuse(403, 'This came from another site and was refused.')
    const job = await jobByTag(tag)
    if (!job) return refuse(404, `There is no job ${tag} on this bench.`, 'tag')
    return await work(job, account)
  } catch (error) {
    return unavailable(error)
  }
}

/** A lost database is told apart from a fault of ours; both keep what was entered on the sender's side. */
export function unavailable(error: unknown): Response {
  const code = error instanceof Error && 'code' in error ? String(error.code) : ''
  const lost = /^(ECONN|ETIMEDOUT|57P|08|53)/.test(code) || (error instanceof Error && /connect|terminat|timeout/i.test(error.message))
  if (!lost) process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`)
  return refuse(503, lost ? 'The database does not answer. It is kept here and sent again.' : 'The server could not do that. It is kept here and tried again.')
}
