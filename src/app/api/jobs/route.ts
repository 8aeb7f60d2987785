import Joi from 'joi'
import { createJob } from '@/data/jobs'
import { refold } from '@/data/tape'
import { transaction } from '@/data/pool'
import { bodyJson } from '@/server/body'
import { forAccount, refuse } from '@/server/answers'

const newJob = Joi.object({ id: Joi.string().uuid().required() })

export async function POST(request: Request) {
  return forAccount(request, async (account) => {
    const { error, value } = newJob.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, 'id')
    const { id } = value as { id: string }
    const tag = await transaction(async (db) => {
      const made = await createJob(id, account.id, db)
      await refold(id, db)
      return made
    })
    return Response.json({ tag })
  })
}
