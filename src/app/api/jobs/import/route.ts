import { forAccount, refuse } from '@/stations/job/answers'
import { importJob } from '@/stations/job/transfer'

const MAX_ZIP_BYTES = 256 * 1024 * 1024
const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i

/** Reads a job's ZIP back in; `?id=` is the client's own id for the new job. */
export async function POST(request: Request) {
  return forAccount(request, async (account) => {
    const id = new URL(request.url).searchParams.get('id') ?? ''
    if (!uuid.test(id)) return refuse(400, 'The request names no job id.', 'id')
    if (Number(request.headers.get('content-length') ?? 0) > MAX_ZIP_BYTES)
      return refuse(413, `A job ZIP is at most ${MAX_ZIP_BYTES / 1_048_576} MB.`, 'file')
    const done = await importJob(new Uint8Array(await request.arrayBuffer()), id, account)
    if (done.ok) return Response.json({ tag: done.tag })
    const first = done.findings[0]!
    const more = done.findings.length > 1 ? ` (and ${done.findings.length - 1} more)` : ''
    return refuse(
      422,
      `Nothing was read in. ${first.path ? `${first.path}: ` : ''}${first.text}${more}.`,
      first.path,
    )
  })
}
