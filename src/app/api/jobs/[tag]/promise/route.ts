import Joi from 'joi'
import { momentThere } from '@/core/reader'
import { openJobs } from '@/data/jobs'
import { minutes, moment } from '@/entry-schemas/field'
import { forJob, refuse } from '@/server/answers'
import { benchPace } from '@/server/bench-pace'
import { readerOf } from '@/server/reader'
import { BENCH_PAGE, ifPromised } from '@/shop/bench-order'

interface Context {
  readonly params: Promise<{ tag: string }>
}

interface Query {
  readonly minutes: number | null
  readonly promised: string | null
}

const query = Joi.object<Query>({
  minutes: minutes.empty('').default(null),
  promised: moment.empty('').default(null),
})

/** What a promise would come to: when the job is likely ready, the odds that it is kept, whom it puts back. Nothing is written. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    const asked = query.validate(Object.fromEntries(new URL(request.url).searchParams))
    const { error } = asked
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'promised'))
    const { minutes: minutesPromised, promised: promisedAt } = asked.value
    const [open, reader, pace] = await Promise.all([openJobs(BENCH_PAGE), readerOf(), benchPace()])
    const now = new Date().toISOString()
    const is = ifPromised(open, job, { promisedAt, minutesPromised }, reader, now, pace)
    return Response.json({ ...is, likelyAt: is.likely && momentThere(reader, is.likely) })
  })
}
