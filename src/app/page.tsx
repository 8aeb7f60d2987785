import { momentOf } from '@/core/tables/plain-text'
import { countOpen, openJobs } from '@/data/jobs'
import { adviseSoon } from '@/server/advise'
import { signedIn } from '@/server/signed-in'
import { Bench } from '@/shop/Bench'
import { ShopFrame } from '@/shop/ShopFrame'

const PAGE = 100
const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

interface Props {
  readonly searchParams: Promise<{ readonly promised?: string; readonly after?: string }>
}

export default async function BenchPage({ searchParams }: Props) {
  const account = await signedIn('/')
  const { promised, after } = await searchParams
  const place =
    typeof after === 'string' && uuid.test(after)
      ? {
          id: after,
          promisedAt: typeof promised === 'string' && momentOf(promised) !== null ? promised : null,
        }
      : null
  const [jobs, all] = await Promise.all([openJobs(PAGE + 1, place), countOpen()])
  for (const job of jobs) if (job.nextStep?.seq !== job.seq) adviseSoon(job.id)
  return (
    <ShopFrame account={account} here="/">
      <Bench
        jobs={jobs.slice(0, PAGE)}
        all={all}
        more={jobs.length > PAGE}
        later={place !== null}
        nowIso={new Date().toISOString()}
      />
    </ShopFrame>
  )
}
