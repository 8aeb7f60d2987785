import { jobNow } from '@/data/job-now'
import { forJob } from '@/server/answers'
import { surroundingsOf } from '@/server/surroundings'

/** What stands round a job outside its tape: the socket and what is known of its board, and its earlier jobs. */
export async function GET(request: Request, { params }: { params: Promise<{ tag: string }> }) {
  return forJob((await params).tag, request, async (job) => {
    const { state, socket } = await jobNow(job.id)
    return Response.json(await surroundingsOf(job, state, socket))
  })
}
