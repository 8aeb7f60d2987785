import { Readable } from 'node:stream'
import { forJob } from '@/server/answers'
import { download } from '@/job/download'
import { exportJob } from '@/server/transfer'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** One ZIP of the job; `?owner=no` leaves the owner's name, contact and signature out. */
export async function GET(request: Request, { params }: Context) {
  const withOwner = new URL(request.url).searchParams.get('owner') !== 'no'
  return forJob((await params).tag, request, async (job) =>
    download(
      Readable.toWeb(await exportJob(job, withOwner)) as ReadableStream,
      'application/zip',
      `${job.tag}.zip`,
    ),
  )
}
