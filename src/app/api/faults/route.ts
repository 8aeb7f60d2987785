import Joi from 'joi'
import { faultIds, faults } from '@/core/triage/model/faults'
import { faultColumns } from '@/core/triage/model/fault-table'
import { keepFaultOdds, ownFaultOdds } from '@/data/fault-odds'
import { bodyJson } from '@/server/body'
import { heavy } from '@/server/heavy'
import { forAccount, forLead, refuse } from '@/server/answers'
import { download } from '@/job/download'
import { writeCsv } from '@/tables/write-csv'

/** The fault table as CSV, in the columns it is read in. */
export async function GET(request: Request) {
  return forAccount(request, async () => {
    const own = await ownFaultOdds()
    const data = faultIds.map((id) => [
      id,
      own[id] ?? faults[id].odds,
      faults[id].shows,
      faults[id].stage,
      '',
    ])
    return download(writeCsv(faultColumns, data), 'text/csv; charset=utf-8', 'faults.csv')
  })
}

const asked = Joi.object({
  csv: Joi.string().max(200_000).required().messages({
    'string.max': 'A fault table has at most 200 kB.',
    '*': 'The file is empty.',
  }),
})

/** Takes a shop's own odds, all or nothing. */
export async function POST(request: Request) {
  return forLead(request, async (account) => {
    const { error, value } = asked.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, 'csv')
    const { odds, findings, uneven } = await heavy(
      account.id,
      'faults',
      value as { csv: string },
      request.signal,
    )
    const kept = odds !== null && uneven.length === 0
    if (kept) await keepFaultOdds(odds)
    return Response.json({ kept, findings: [...findings, ...uneven] })
  })
}

/** Back to the bench defaults. */
export async function DELETE(request: Request) {
  return forLead(request, async () => {
    await keepFaultOdds({})
    return Response.json({ kept: true, findings: [] })
  })
}
