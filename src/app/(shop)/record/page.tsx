import { momentOf, oddText } from '@/core/tables/plain-text'
import { closedJobs, countClosed } from '@/data/jobs'
import { signedIn } from '@/server/signed-in'
import { RecordList } from '@/shop/record/RecordList'

const PAGE = 40
const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

interface Props {
  readonly searchParams: Promise<{
    readonly words?: string
    readonly closedAt?: string
    readonly id?: string
  }>
}

export default async function RecordPage({ searchParams }: Props) {
  await signedIn('/record')
  const asked = await searchParams
  const { closedAt, id } = asked
  const words = typeof asked.words === 'string' && oddText(asked.words) === null ? asked.words : ''
  const whole = closedAt !== undefined && momentOf(closedAt) !== null && uuid.test(id ?? '')
  const after = whole ? { closedAt, id: id! } : null
  const [jobs, all] = await Promise.all([closedJobs({ words, after, limit: PAGE + 1 }), countClosed()])
  return (
    <>
      <RecordList
        jobs={jobs.slice(0, PAGE)}
        more={jobs.length > PAGE}
        all={all}
        words={words}
        later={after !== null}
      />
    </>
  )
}
