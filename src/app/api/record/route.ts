import Joi from 'joi'
import { jobRecords } from '@/data/job-records'
import { closedJobs } from '@/data/jobs'
import { download } from '@/job/download'
import { forAccount, refuse } from '@/server/answers'
import { writeCsv } from '@/tables/write-csv'

const MOST = 10_000

interface Query {
  readonly of: 'odds' | 'jobs'
  readonly as: 'csv' | 'json'
}
const query = Joi.object<Query>({
  of: Joi.valid('odds', 'jobs').default('odds'),
  as: Joi.valid('csv', 'json').default('csv'),
})

type Cell = string | number | null

/** Every odds of the record, and whether it came so. */
async function oddsRows(): Promise<Record<string, Cell>[]> {
  const records = await jobRecords(MOST)
  return records.flatMap(({ tag, odds }) =>
    odds.map(({ came, school = '', ...said }) => ({ job: tag, ...said, came: came ? 1 : 0, school })),
  )
}

/** Every finished job, newest first: its board, how it ended, its minutes and what it left for the record. */
async function jobRows(): Promise<Record<string, Cell>[]> {
  const records = new Map((await jobRecords(MOST)).map((record) => [record.tag, record]))
  return (await closedJobs({ limit: MOST })).map(
    ({ tag, board, words, createdAt, closedAt, outcome, promisedAt, bench }) => {
      const record = records.get(tag)
      return {
        job: tag,
        board,
        words,
        begun: createdAt,
        ended: closedAt,
        outcome,
        promised: promisedAt,
        minutes: Math.round(bench.minutes),
        minutesPromised: bench.minutesPromised,
        contactsWorked: record?.worked ?? null,
        snapped: record?.harms['contact snapped'] ?? null,
        held: record?.held == null ? null : Number(record.held),
      }
    },
  )
}

const columnsOf: Readonly<Record<Query['of'], readonly string[]>> = {
  odds: 'job of source by kind odds came school'.split(' '),
  jobs: 'job board words begun ended outcome promised minutes minutesPromised contactsWorked snapped held'.split(
    ' ',
  ),
}

/** The record to keep elsewhere: every odds against what came (`of=odds`), or every job (`of=jobs`), as CSV or JSON. */
export async function GET(request: Request) {
  return forAccount(request, async () => {
    const asked = query.validate(Object.fromEntries(new URL(request.url).searchParams))
    const { error } = asked
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'of'))
    const { of, as } = asked.value
    const rows = await (of === 'odds' ? oddsRows() : jobRows())
    const columns = columnsOf[of]
    return as === 'json'
      ? download(JSON.stringify(rows, null, 1), 'application/json', `${of}.json`)
      : download(
          writeCsv(
            columns,
            rows.map((row) => columns.map((column) => row[column])),
          ),
          'text/csv; charset=utf-8',
          `${of}.csv`,
        )
  })
}
