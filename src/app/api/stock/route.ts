import Joi from 'joi'
import { stockColumns, stockRow } from '@/core/parts/stock/stock-item'
import { keepStock, stock } from '@/data/stock'
import { download } from '@/job/download'
import { forAccount, refuse } from '@/server/answers'
import { bodyJson } from '@/server/body'
import { heavy } from '@/server/heavy'
import { writeCsv } from '@/tables/write-csv'

/** The shelf as CSV, with what is left of each. */
export async function GET(request: Request) {
  return forAccount(request, async () =>
    download(
      writeCsv(
        stockColumns,
        (await stock()).filter(({ ofKit }) => !ofKit).map((item) => [...stockRow(item)]),
      ),
      'text/csv; charset=utf-8',
      'shelf.csv',
    ),
  )
}

const MAX_CSV = 1024 * 1024
const asked = Joi.object({
  csv: Joi.string().max(MAX_CSV).required().messages({
    'string.max': 'A table of the shelf has at most 1 MB.',
    '*': 'The file is empty.',
  }),
}).unknown()

/** Takes the shelf as it was counted, all or nothing. */
export async function POST(request: Request) {
  return forAccount(request, async (account) => {
    const { error, value } = asked.validate(await bodyJson(request, MAX_CSV + 64 * 1024))
    if (error) return refuse(422, error.message, 'csv')
    const { csv } = value as { csv: string }
    const { items, findings, uneven } = await heavy(account.id, 'stock', { csv }, request.signal)
    const kept = items !== null && uneven.length === 0
    if (kept) await keepStock(items)
    return Response.json({
      kept,
      say: kept ? `${items.length} things` : '',
      findings: [...findings, ...uneven],
    })
  })
}
