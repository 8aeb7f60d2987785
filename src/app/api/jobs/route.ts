import Joi from 'joi'
import { createJob } from '@/data/jobs'
import { refold } from '@/data/tape'
import { transaction } from '@/data/pool'
import { refuse, unavailable } from '@/stations/job/answers'
import { sameOrigin, whoIs } from '@/stations/job/signed-in'

export async function POST(request: Request) {
  try {
    const account = await whoIs()
    if (!account) return refuse(401, 'Your sign-in has run out. Sign in again.')
    if (!(await sameOrigin())) return refuse(403, 'This came from another site and was refused.')
    const { error, value } = Joi.object({ id: Joi.string().uuid().required() }).validate(await request.json().catch(() => null))
    if (error) return refuse(422, error.message, 'id')
    const tag = await transaction(async (db) => {
      const made = await createJob((value as { id: string }).id, account.id, db)
      await refold((value as { id: string }).id, db)
      return made
    })
    return Response.json({ tag })
  } catch (error) {
    return unavailable(error)
  }
}
