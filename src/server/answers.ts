import 'server-only'
import { jobByTag } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import type { Account } from '@/data/accounts'
import { FileRefused } from '@/data/files'
import { BodyRefused } from '@/server/body'
import { GivenUp, Occupied } from '@/server/heavy'
import { TooManyAtOnce } from '@/server/uploads'
import { sameOrigin, whoIs } from './signed-in'

/** Every refusal of a route handler: what happened, which field, what to do. */
export const refuse = (status: number, text: string, field = '') =>
  Response.json({ error: { field, text } }, { status })

/** Runs a route handler for a signed-in account. What it answers is kept by nobody on the way, unless it says so. */
export async function forAccount(
  request: Request,
  work: (account: Account) => Promise<Response>,
): Promise<Response> {
  const answer = await answered(request, work)
  if (!answer.headers.has('cache-control')) answer.headers.set('cache-control', 'no-store')
  answer.headers.set('x-content-type-options', 'nosniff')
  return answer
}

async function answered(request: Request, work: (account: Account) => Promise<Response>): Promise<Response> {
  try {
    const account = await whoIs()
    if (!account)
      return refuse(401, 'Your sign-in has run out. Nothing is lost: sign in again and it is sent.')
    if (request.method !== 'GET' && request.method !== 'HEAD' && !(await sameOrigin()))
      return refuse(403, 'This came from another site and was refused.')
    return await work(account)
  } catch (error) {
    return failed(error)
  }
}

/** For changes that the whole shop works by: the lead makes them. */
export const forLead = (request: Request, work: (account: Account) => Promise<Response>) =>
  forAccount(request, async (account) =>
    account.role === 'lead'
      ? work(account)
      : refuse(403, 'The lead changes this: it holds for the whole shop.'),
  )

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

/**
 * What went wrong, in words: what was sent cannot be taken (422), there is too much at once (429), the database does not
 * answer (503: it is kept and sent again), or a fault of ours (500: it is kept, and can be looked at and discarded).
 */
function failed(error: unknown): Response {
  if (error instanceof BodyRefused) return refuse(error.status, error.message, 'file')
  if (error instanceof FileRefused) return refuse(error.status, error.message, 'file')
  if (error instanceof TooManyAtOnce || error instanceof Occupied)
    return refuse(
      429,
      'One thing after the other: something of yours is still under way. Try again in a moment.',
    )
  if (error instanceof GivenUp)
    return refuse(503, 'It took too long and was given up. Ask for less, or try again.')
  const code = error instanceof Error && 'code' in error ? String(error.code) : ''
  if (/^2[23]/.test(code)) {
    const detail = error as { column?: string; constraint?: string }
    return refuse(
      422,
      'The database cannot take this as it is. Look at it, change it or discard it.',
      detail.column ?? detail.constraint ?? 'body',
    )
  }
  if (isLost(error, code)) return refuse(503, 'The database does not answer. It is kept here and sent again.')
  process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`)
  return refuse(500, 'The server could not do that; it is a fault of ours. It is kept here.')
}

/** No connection, a connection lost, a server that starts or stops, or an answer that does not come in time. */
const isLost = (error: unknown, code: string): boolean =>
  /^(ECONN|ETIMEDOUT|EPIPE|57P|08|53|55P03|57014)/.test(code) ||
  (error instanceof Error && /connect|terminat|timeout/i.test(error.message))
