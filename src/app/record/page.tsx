import type { Metadata } from 'next'
import { closedJobs, countClosed } from '@/data/jobs'
import { signedIn } from '@/stations/job/signed-in'
import { RecordList } from '@/stations/shop/RecordList'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Record' }

const PAGE = 40
const uuid = /^[0-9a-f-]{36}$/

interface Props {
  readonly searchParams: Promise<{
    readonly words?: string
    readonly closedAt?: string
    readonly id?: string
  }>
}

export default async function RecordPage({ searchParams }: Props) {
  const account = await signedIn('/record')
  const { words = '', closedAt, id } = await searchParams
  const whole = closedAt !== undefined && !Number.isNaN(Date.parse(closedAt)) && uuid.test(id ?? '')
  const after = whole ? { closedAt, id: id! } : null
  const [jobs, all] = await Promise.all([closedJobs({ words, after, limit: PAGE + 1 }), countClosed()])
  return (
    <ShopFrame account={account} here="/record">
      <RecordList
        jobs={jobs.slice(0, PAGE)}
        more={jobs.length > PAGE}
        all={all}
        words={words}
        later={after !== null}
      />
    </ShopFrame>
  )
}
