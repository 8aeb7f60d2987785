import { momentOf } from '@/core/tables/plain-text'
import { countOpen, openJobs } from '@/data/jobs'
import { adviseSoon } from '@/server/advise'
import { cookies } from 'next/headers'
import { benchPace } from '@/server/bench-pace'
import { readerOf } from '@/server/reader'
import { signedIn } from '@/server/signed-in'
import { BENCH_PAGE } from '@/shop/bench-order'
import { Bench } from '@/shop/Bench'

const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

interface Props {
  readonly searchParams: Promise<{ readonly promised?: string; readonly after?: string }>
}

export default async function BenchPage({ searchParams }: Props) {
  await signedIn('/')
  const { promised, after } = await searchParams
  const place =
    typeof after === 'string' && uuid.test(after)
      ? {
          id: after,
          promisedAt: typeof promised === 'string' && momentOf(promised) !== null ? promised : null,
        }
      : null
  const [jobs, all, reader, pace] = await Promise.all([
    openJobs(BENCH_PAGE + 1, place),
    countOpen(),
    readerOf(),
    benchPace(),
  ])
  const dismissed = (await cookies()).get('first-moves')?.value === 'done'
  for (const job of jobs) if (job.stepIsOlder) adviseSoon(job.id)
  return (
    <>
      <Bench
        jobs={jobs.slice(0, BENCH_PAGE)}
        all={all}
        more={jobs.length > BENCH_PAGE}
        later={place !== null}
        nowIso={new Date().toISOString()}
        reader={reader}
        pace={pace}
        firstMoves={dismissed ? null : process.env.DEMO_SIGN_IN === '1' ? 'demo' : 'own shop'}
      />
    </>
  )
}
