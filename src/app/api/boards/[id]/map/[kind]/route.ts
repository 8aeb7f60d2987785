import { gunzipSync } from 'node:zlib'
import Joi from 'joi'
import { mapFiles } from '@/core/parts/board-map/map-files'
import type { MapFile } from '@/core/parts/board-map/map-files'
import type { Account } from '@/data/accounts'
import { dropMapFile, keepMapFile, mapFileOf } from '@/data/board-maps'
import { boardById } from '@/data/boards'
import { download } from '@/job/download'
import { forAccount, forLead, refuse } from '@/server/answers'
import { bodyJson } from '@/server/body'
import { heavy } from '@/server/heavy'

interface Context {
  readonly params: Promise<{ id: string; kind: string }>
}

const MAX_TEXT = 32 * 1024 * 1024
const asked = Joi.object({
  name: Joi.string().trim().max(80).allow('').required(),
  csv: Joi.string().max(MAX_TEXT).required().messages({
    'string.max': 'The file has more than 32 MB: leave out vias, or send one side at a time.',
    '*': 'The file is empty.',
  }),
})

/** Runs for a board and a kind of file that exist. */
async function forMap(
  request: Request,
  { params }: Context,
  work: (id: string, kind: MapFile, account: Account) => Promise<Response>,
  asLead = false,
): Promise<Response> {
  const { id, kind } = await params
  return (asLead ? forLead : forAccount)(request, async (account) => {
    const known = mapFiles.find((k) => k === kind)
    if (!known) return refuse(404, `Of a board’s map, ${mapFiles.join(' and ')} are kept.`, 'kind')
    if (!(await boardById(id))) return refuse(404, 'The library has no such board.', 'id')
    return work(id, known, account)
  })
}

export const GET = (request: Request, context: Context) =>
  forMap(request, context, async (id, kind) => {
    const kept = await mapFileOf(id, kind)
    if (!kept) return refuse(404, 'Nothing is kept of it yet.', 'kind')
    return download(
      gunzipSync(kept.gzip),
      'text/plain; charset=utf-8',
      kept.name || `${id}.${kind === 'netlist' ? 'ipc' : 'csv'}`,
    )
  })

/** Keeps a file of the map when something in it can be placed. */
export const POST = (request: Request, context: Context) =>
  forMap(request, context, async (id, kind, account) => {
    const { error, value } = asked.validate(await bodyJson(request, MAX_TEXT + 1024 * 1024))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'csv'))
    const { name, csv } = value as { name: string; csv: string }
    const { say, findings } = await heavy(account.id, 'mapFile', { kind, text: csv }, request.signal)
    if (say === null) return Response.json({ kept: false, say: '', findings })
    await keepMapFile(id, kind, { name, say, text: csv })
    return Response.json({ kept: true, say, findings })
  })

export const DELETE = (request: Request, context: Context) =>
  forMap(
    request,
    context,
    async (id, kind) => {
      await dropMapFile(id, kind)
      return Response.json({ dropped: kind })
    },
    true,
  )
