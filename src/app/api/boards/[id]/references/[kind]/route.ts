import Joi from 'joi'
import { betweenTables } from '@/core/firmware/route/table-csv'
import type { Account } from '@/data/accounts'
import { boardById } from '@/data/boards'
import { openJobsOn } from '@/data/jobs'
import { referenceKinds } from '@/core/job/references'
import type { ReferenceKind } from '@/core/job/references'
import { dropReference, keepReference, referencesOf } from '@/data/references'
import { bodyJson } from '@/server/body'
import { heavy } from '@/server/heavy'
import { forAccount, forLead, refuse } from '@/server/answers'
import { download } from '@/job/download'
import { referenceCsv } from '@/tables/read-reference'

interface Context {
  readonly params: Promise<{ id: string; kind: string }>
}

const MAX_CSV = 16 * 1024 * 1024
const asked = Joi.object({
  name: Joi.string().trim().max(80).allow('').required(),
  csv: Joi.string().max(MAX_CSV).required().messages({
    'string.max': 'The table has more than 16 MB: record slower, or keep a shorter stretch.',
    '*': 'The file is empty.',
  }),
})

/** Runs for a board and a kind of reference that exist. */
async function forReference(
  request: Request,
  { params }: Context,
  work: (id: string, kind: ReferenceKind, account: Account) => Promise<Response>,
  asLead = false,
): Promise<Response> {
  const { id, kind } = await params
  return (asLead ? forLead : forAccount)(request, async (account) => {
    const known = referenceKinds.find((k) => k === kind)
    if (!known) return refuse(404, `Of a board, ${referenceKinds.join(', ')} can be kept.`, 'kind')
    if (!(await boardById(id))) return refuse(404, 'The library has no such board.', 'id')
    return work(id, known, account)
  })
}

export const GET = (request: Request, context: Context) =>
  forReference(request, context, async (id, kind) => {
    const body = (await referencesOf(id))[kind]
    if (!body) return refuse(404, 'Nothing is kept of it yet.', 'kind')
    return download(referenceCsv(kind, body), 'text/csv; charset=utf-8', `${id}-${kind}.csv`)
  })

/** Keeps a table for the board model when it is sound. */
export const POST = (request: Request, context: Context) =>
  forReference(request, context, async (id, kind, account) => {
    const { error, value } = asked.validate(await bodyJson(request, MAX_CSV + 64 * 1024))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'csv'))
    const { name, csv } = value as { name: string; csv: string }
    const before = await referencesOf(id)
    // Rows that were edited keep the name of their table.
    const called = name || (before[kind]?.name ?? '')
    const { body, findings, say } = await heavy(
      account.id,
      'reference',
      { kind, name: called, csv },
      request.signal,
    )
    if (!body) return Response.json({ kept: false, say, findings })
    const firmware = kind === 'releases' || kind === 'cpus' || kind === 'ways' || kind === 'chips'
    const all = firmware ? { ...before, [kind]: body } : null
    const between =
      all && kind !== 'chips'
        ? betweenTables(all.releases, all.cpus, all.ways, kind as 'releases' | 'cpus' | 'ways')
        : []
    if (between.length > 0) return Response.json({ kept: false, say: '', findings: between })
    await keepReference(id, kind, body as never)
    const touches = firmware ? await openJobsOn(id) : []
    return Response.json({ kept: true, say, findings, touches })
  })

export const DELETE = (request: Request, context: Context) =>
  forReference(
    request,
    context,
    async (id, kind) => {
      await dropReference(id, kind)
      return Response.json({ dropped: kind })
    },
    true,
  )
