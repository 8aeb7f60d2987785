import { createEvents } from 'ics'
import type { DateArray } from 'ics'
import { percent } from '@/core/maths/percent'
import { openJobs } from '@/data/jobs'
import { forAccount, refuse } from '@/server/answers'
import { benchPace } from '@/server/bench-pace'
import { readerOf } from '@/server/reader'
import { BENCH_PAGE, benchOrder } from '@/shop/bench-order'

const partsOf = (local: string): DateArray =>
  local.split(/[-T:]/).map(Number) as [number, number, number, number, number]

/** The bench as a calendar (iCalendar): each job when it is likely ready, by the clock on the wall. */
export async function GET(request: Request) {
  return forAccount(request, async () => {
    const jobs = await openJobs(BENCH_PAGE)
    const { ready } = benchOrder(jobs, await readerOf(), new Date().toISOString(), await benchPace())
    const { error, value } = createEvents(
      jobs.flatMap((job) => {
        const is = ready.get(job.id)
        if (!is || is.likely === 'never') return []
        return [
          {
            uid: `${job.id}@arch-needle`,
            productId: 'arch-needle',
            title: `${job.tag} likely ready`,
            description: [
              job.board,
              job.words,
              is.kept !== null && `promise kept: ${percent(is.kept)}${is.because ? `, ${is.because}` : ''}`,
            ]
              .filter(Boolean)
              .join('\n'),
            start: partsOf(is.likely),
            startInputType: 'local' as const,
            startOutputType: 'local' as const,
            duration: { minutes: 15 },
          },
        ]
      }),
    )
    if (error || !value) return refuse(500, 'The calendar was not written. Try again in a moment.')
    return new Response(value, {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'content-disposition': 'attachment; filename="bench.ics"',
      },
    })
  })
}
