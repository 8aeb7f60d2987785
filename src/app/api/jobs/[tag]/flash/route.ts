import Joi from 'joi'
import { clipFault } from '@/core/firmware/clip'
import { hasFile } from '@/data/files'
import { askToStop, beginSession, lastSession } from '@/data/flash-sessions'
import { jobNow } from '@/data/job-now'
import { bodyJson } from '@/server/body'
import { forJob, refuse } from '@/server/answers'
import { simulatedChip } from '@/server/simulated-chip'
import { runSession } from '@/server/flash'
import { benchFaults } from '@/simulated-bench/bench-faults'
import type { BenchFault } from '@/simulated-bench/bench-faults'

interface Context {
  readonly params: Promise<{ tag: string }>
}

const sha = Joi.string().hex().length(64)
const order = Joi.object({
  id: Joi.string().uuid().required(),
  image: sha.required(),
  release: sha.allow(null).required(),
  fault: Joi.valid(...benchFaults).default('none'),
  despite: Joi.array().items(Joi.string().max(300)).max(20).required(),
})

/** How the last session at this job’s chip stands; null where there was none. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) =>
    Response.json({ session: await lastSession(job.id) }),
  )
}

/** Begins to write the simulated chip; it runs on by itself, and GET tells how far it is. */
export async function POST(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const { error, value } = order.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'image'))
    const {
      id,
      image,
      release,
      despite,
      fault: benchFault,
    } = value as {
      id: string
      image: string
      release: string | null
      despite: string[]
      fault: BenchFault
    }
    const chip = await simulatedChip(job.id)
    if (!chip) return refuse(404, 'This board is on a real bench: save the image and write it there.', 'tag')
    const fault = clipFault((await jobNow(job.id)).state.firmware)
    if (fault) return refuse(409, fault, 'clip')
    for (const file of [image, ...(release === null ? [] : [release])])
      if (!(await hasFile(job.id, file))) return refuse(422, 'That image is not with this job.', 'image')
    const last = await lastSession(job.id)
    // What was kept before a session that did not come through is still the way back.
    const backup = last && last.ended !== 'verified' && last.ended !== null ? last.backup : null
    const begun = await beginSession(job.id, account.id, { id, image, release, despite, backup })
    if (begun === 'another runs') return refuse(409, 'A session is under way at this chip already.', 'id')
    if (begun === 'begun')
      void runSession(job, account, { id, image, release, despite, backup }, chip, benchFault)
    return Response.json({ session: await lastSession(job.id) })
  })
}

/** Asks the session that is under way to stop between two commands. */
export async function DELETE(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    await askToStop(job.id)
    return Response.json({ session: await lastSession(job.id) })
  })
}
