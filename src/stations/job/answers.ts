import 'server-only'
import { jobByTag } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import type { Account } from '@/data/accounts'
import { sameOrigin, whoIs } from './signed-in'

/** Every refusal of a route handler: what happened, which field, what to do. */
export const refuse = (status: number, text: string, field = '') =>
  Response.json({ error: { field, text } }, { status })

/** Runs a route handler for a signed-in account. */
export async function forAccount(
  request: Request,
  work: (account: Account) => Promise<Response>,
): Promise<Response> {
  try {
    const account = await whoIs()
    if (!account)
      return refuse(401, 'Your sign-in has run out. Nothing is lost: sign in again and it is sent.')
    if (request.method !== 'GET' && !(await sameOrigin()))
      return refuse(403, 'This came from another site and was refused.')
    return await work(account)
  } catch (error) {
    return unavailable(error)
  }
}

/** The same, for a job that exists. */
export const forJob = (
  tag: string,
  request: Request,
  work: (job: Job, account: Account) => Promise<Response>,
) =>
  forAccount(request, async (account) => {
    const job = await jobByTag(tag)
    return job ? work(job, account) : refuse(404, `There is no job ${tag} on this bench.`, 'tag')
  })

/** A lost database is told apart from a fault of ours; both keep what was entered on the sender's side. */
function unavailable(error: unknown): Response {
  const code = error instanceof Error && 'code' in error ? String(error.code) : ''
  const lost =
    /^(ECONN|ETIMEDOUT|57P|08|53)/.test(code) ||
    (error instanceof Error && /connect|terminat|timeout/i.test(error.message))
  if (!lost) process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`)
  const what = lost ? 'The database does not answer.' : 'The server could not do that.'
  return refuse(503, `${what} It is kept here and sent again.`)
}
