import { bodyPieces } from '@/server/body'
import { forAccount, refuse } from '@/server/answers'
import { importJob } from '@/server/transfer'

const MAX_ZIP_BYTES = 256 * 1024 * 1024
const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i

/** Reads a job's ZIP back in; `?id=` is the client's own id for the new job. */
export async function POST(request: Request) {
  return forAccount(request, async (account) => {
    const id = new URL(request.url).searchParams.get('id') ?? ''
    if (!uuid.test(id)) return refuse(400, 'The request names no job id.', 'id')
    const done = await importJob(bodyPieces(request, MAX_ZIP_BYTES), id, account, request.signal)
    if (done.ok) return Response.json({ tag: done.tag, known: done.known })
    const first = done.findings[0]!
    const more = done.findings.length > 1 ? ` (and ${done.findings.length - 1} more)` : ''
    return refuse(
      422,
      `Nothing was imported. ${first.path ? `${first.path}: ` : ''}${first.text}${more}.`,
      first.path,
    )
  })
}
