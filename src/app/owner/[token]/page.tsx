import type { Metadata } from 'next'
import { OpensNothing } from '@/ui/OpensNothing'
import { sayWallClock, wallClock } from '@/core/reader'
import { ownerSees } from '@/core/job/owner-sees'
import { jobNow } from '@/data/job-now'
import { jobById, openJobs } from '@/data/jobs'
import { openedForOwner } from '@/data/job-links'
import { OwnerPage } from '@/owner/OwnerPage'
import { benchPace } from '@/server/bench-pace'
import { readerOf } from '@/server/reader'
import { BENCH_PAGE, benchOrder } from '@/shop/bench-order'

export const metadata: Metadata = {
  title: 'Your board',
  robots: { index: false, follow: false },
  referrer: 'no-referrer',
}

/** How a board stands, for whoever has its link; nothing but this job, and nothing of how it is worked. */
export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const link = await openedForOwner(token)
  const job = link && (await jobById(link.jobId))
  if (!link || !job) return <OpensNothing />
  const { state } = await jobNow(job.id)
  const sees = ownerSees(state)
  return (
    <OwnerPage token={token} tag={job.tag} sees={sees} likely={sees.ended ? null : await likelyOf(job.id)} />
  )
}

/** When it is likely ready, in the order of the bench as it stands; null while it waits for the owner. */
async function likelyOf(jobId: string): Promise<string | null> {
  const [jobs, reader, pace] = await Promise.all([openJobs(BENCH_PAGE), readerOf(), benchPace()])
  const now = new Date().toISOString()
  const is = benchOrder(jobs, reader, now, pace).ready.get(jobId)
  return is && is.likely !== 'never' && is.likely > wallClock(reader, now)
    ? sayWallClock(reader, is.likely)
    : null
}
