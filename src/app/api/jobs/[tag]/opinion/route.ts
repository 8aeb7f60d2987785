import { Readable } from 'node:stream'
import { download } from '@/job/download'
import { forJob, refuse } from '@/server/answers'
import { packQuestion, questionOf } from '@/server/opinion'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** A question with its photos and the contact map, as ZIP: `?asked=12`. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    const asked = Number(new URL(request.url).searchParams.get('asked'))
    const question = Number.isInteger(asked) ? await questionOf(job, asked) : null
    if (!question) return refuse(404, 'Nobody is asked on that line.', 'asked')
    return download(
      Readable.toWeb(await packQuestion(question)) as ReadableStream,
      'application/zip',
      `${job.tag}-question-${asked}.zip`,
    )
  })
}
