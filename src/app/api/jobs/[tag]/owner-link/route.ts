import Joi from 'joi'
import { makeOwnerLink, ownerLinksOf, revokeOwnerLink } from '@/data/owner-links'
import { forJob, refuse } from '@/server/answers'
import { bodyJson } from '@/server/body'

interface Context {
  readonly params: Promise<{ tag: string }>
}

const MOST_DAYS = 365
const wanted = Joi.object({
  id: Joi.string().uuid().required(),
  days: Joi.number()
    .integer()
    .min(1)
    .max(MOST_DAYS)
    .required()
    .messages({ '*': `How many days may it open? 1 to ${MOST_DAYS}.` }),
})
const named = Joi.object({ id: Joi.string().uuid().required() })

/** The links to this job that open. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) =>
    Response.json({ links: await ownerLinksOf(job.id) }),
  )
}

/** Makes a link for the owner; this answer is the only place that it stands in. */
export async function POST(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const { error, value } = wanted.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'days'))
    const { id, days } = value as { id: string; days: number }
    const token = await makeOwnerLink(id, job.id, account, days)
    if (token === null)
      return refuse(409, 'No link is made for practice, nor once the owner was erased.', 'id')
    return Response.json({ path: `/owner/${token}`, links: await ownerLinksOf(job.id) })
  })
}

/** Closes a link at once. */
export async function DELETE(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    const { error, value } = named.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, 'id')
    await revokeOwnerLink(job.id, (value as { id: string }).id)
    return Response.json({ links: await ownerLinksOf(job.id) })
  })
}
