import { handBackSheet } from '@/core/job/sheet'
import { customerOf } from '@/data/jobs'
import { jobNow } from '@/data/job-now'
import { heavy } from '@/server/heavy'
import { readerOf } from '@/server/reader'
import { forJob } from '@/server/answers'
import { download } from '@/job/download'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** The hand-back sheet as a PDF. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const { state, socket } = await jobNow(job.id)
    const customer = await customerOf(job.customerId)
    const at = state.handBack.done?.at ?? new Date().toISOString()
    const reader = await readerOf()
    const sheet = handBackSheet(state, socket, at)
    const pdf = await heavy(
      account.id,
      'pdf',
      { sheet, tag: job.tag, at, reader, owner: customer?.name ?? '', socket },
      request.signal,
    )
    return download(pdf, 'application/pdf', `${job.tag}-hand-back.pdf`)
  })
}
