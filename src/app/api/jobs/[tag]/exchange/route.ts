import { jobNow } from '@/data/job-now'
import { forJob } from '@/server/answers'
import { exchangeFor } from '@/server/exchange'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** Boards of verified stock that could stand in for this one, and what could be bought instead. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) =>
    Response.json(await exchangeFor((await jobNow(job.id)).state.intake.ticket, job.id)),
  )
}
