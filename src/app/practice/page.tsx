import type { Metadata } from 'next'
import { practiceJobs } from '@/data/jobs'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { signedIn } from '@/stations/job/signed-in'
import { Practice } from '@/stations/practice/Practice'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Practice' }

export default async function PracticePage() {
  const account = await signedIn('/practice')
  const jobs = await practiceJobs()
  const shown = await Promise.all(jobs.map((job) => hiddenBoardOf(job.id)))
  const boards = jobs.map(({ tag, words, createdAt }, i) => ({
    tag,
    words,
    createdAt,
    over: shown[i]?.shownSeq != null,
  }))
  return (
    <ShopFrame account={account} here="/practice">
      <Practice boards={boards} />
    </ShopFrame>
  )
}
