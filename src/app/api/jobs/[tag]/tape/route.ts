import { adviseSoon } from '@/server/advise'
import { bodyJson } from '@/server/body'
import { readTape } from '@/data/read-tape'
import { appendEntry } from '@/data/tape'
import { checkNewEntry } from '@/entry-schemas/entry-schema'
import { forJob, refuse } from '@/server/answers'

interface Context {
  readonly params: Promise<{ tag: string }>
}

const MAX_BODY = 512 * 1024

export async function GET(request: Request, { params }: Context) {
  const after = Number(new URL(request.url).searchParams.get('after') ?? 0)
  if (!Number.isInteger(after) || after < 0 || after > 2_147_483_647)
    return refuse(400, 'after must be a line number', 'after')
  return forJob((await params).tag, request, async (job) =>
    Response.json({ entries: await readTape(job.id, after) }),
  )
}

export async function POST(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const raw = await bodyJson(request, MAX_BODY)
    if (raw === null) return refuse(400, 'The line did not arrive whole.', 'body')
    const checked = checkNewEntry(raw)
    if (!checked.ok) return refuse(422, checked.fault.text, checked.fault.field)
    const done = await appendEntry(job.id, account, checked.value)
    switch (done.result) {
      case 'saved':
        adviseSoon(job.id)
        return Response.json({ entries: done.entries })
      case 'other body':
        return refuse(409, 'This line was sent before with other words. Enter it again.', 'id')
      case 'conflict':
        return Response.json(
          {
            error: { field: 'basis', text: `${done.with.by} has just written about the same thing.` },
            conflict: done.with,
            entries: done.entries,
          },
          { status: 409 },
        )
      case 'refused':
        return refuse(422, done.text, done.field)
    }
  })
}
