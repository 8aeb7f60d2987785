import Joi from 'joi'
import { eraseCustomer, saveCustomer } from '@/data/jobs'
import { bodyJson } from '@/server/body'
import { forJob, refuse } from '@/server/answers'

interface Context {
  readonly params: Promise<{ tag: string }>
}

const owner = Joi.object({
  name: Joi.string()
    .trim()
    .min(1)
    .max(120)
    .required()
    .messages({ '*': 'Whose board is it? A name is enough.' }),
  contact: Joi.string()
    .trim()
    .max(200)
    .allow('')
    .required()
    .messages({ '*': 'At most 200 letters, please.' }),
})

export async function PUT(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    const { error, value } = owner.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'name'))
    const { name, contact } = value as { name: string; contact: string }
    await saveCustomer(job.id, name, contact)
    return Response.json({ name, contact, erased: false })
  })
}

export async function DELETE(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    if (account.role !== 'lead') return refuse(403, 'Only the lead erases an owner’s data.')
    await eraseCustomer(job.id)
    return Response.json({ name: '', contact: '', erased: true })
  })
}
