import { jobRecords } from '@/data/job-records'
import { download } from '@/job/download'
import { forAccount } from '@/server/answers'
import { writeCsv } from '@/tables/write-csv'

const MOST = 10_000
const columns = ['job', 'of', 'source', 'by', 'kind', 'odds', 'came', 'school'] as const

/** Every odds of the record, and whether it came so, as CSV. */
export async function GET(request: Request) {
  return forAccount(request, async () =>
    download(
      writeCsv(
        columns,
        (await jobRecords(MOST)).flatMap(({ tag, odds }) =>
          odds.map((o) => [tag, o.of, o.source, o.by, o.kind, o.odds, o.came ? 1 : 0, o.school ?? '']),
        ),
      ),
      'text/csv; charset=utf-8',
      'odds.csv',
    ),
  )
}
