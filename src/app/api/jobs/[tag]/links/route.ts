import Joi from 'joi'
import { jobNow } from '@/data/job-now'
import { linksOf, makeLink, revokeLink } from '@/data/job-links'
import { MOST_LINES } from '@/entry-schemas/field'
import { forJob, refuse } from '@/server/answers'
import { bodyJson } from '@/server/body'

interface Context {
  readonly params: Promise<{ tag: string }>
}

const MOST_DAYS = 365
/** The line of the question that is opened; null for the owner. */
const asked = Joi.number().integer().min(1).max(MOST_LINES).allow(null).default(null)
const wanted = Joi.object({
  id: Joi.string().uuid().required(),
  days: Joi.number()
    .integer()
    .min(1)
    .max(MOST_DAYS)
    .required()
    .messages({ '*': `How many days may it open? 1 to ${MOST_DAYS}.` }),
  asked,
})
const named = Joi.object({ id: Joi.string().uuid().required(), asked })

/** The links that open: to the owner, or with `?asked=12` to whoever is asked on that line. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    const { error, value } = asked.validate(new URL(request.url).searchParams.get('asked'))
    if (error) return refuse(400, 'asked must be the line of a question', 'asked')
    return Response.json({ links: await linksOf(job.id, value as number | null) })
  })
}

/** Makes a link; this answer is the only place that it stands in. */
export async function POST(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const { error, value } = wanted.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'days'))
    const { id, days, asked: of } = value as { id: string; days: number; asked: number | null }
    if (of !== null && !(await jobNow(job.id)).state.intake.asked.some((a) => a.seq === of))
      return refuse(422, `Nobody is asked on line ${of}.`, 'asked')
    const token = await makeLink(id, job.id, account, days, of)
    if (token === null)
      return refuse(409, 'No link is made for practice, nor once the owner was erased.', 'id')
    const path = `/${of === null ? 'owner' : 'opinion'}/${token}`
    return Response.json({ path, links: await linksOf(job.id, of) })
  })
}

/** Closes a link at once. */
export async function DELETE(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    const { error, value } = named.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, 'id')
    const { id, asked: of } = value as { id: string; asked: number | null }
    await revokeLink(job.id, id)
    return Response.json({ links: await linksOf(job.id, of) })
  })
}
