import Joi from 'joi'
import { clipFault } from '@/core/firmware/clip'
import { preFlight } from '@/core/firmware/pre-flight'
import { supportOf } from '@/core/firmware/route/support-table'
import { firmwareView } from '@/core/job/firmware-view'
import type { JobState } from '@/core/job/job-state'
import { hasFile } from '@/data/files'
import { askToStop, beginSession, lastSession } from '@/data/flash-sessions'
import { jobNow } from '@/data/job-now'
import { referencesOf } from '@/data/references'
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

/** The last session at the chip that is on the board. */
const sessionNow = async (jobId: string) => lastSession(jobId, (await jobNow(jobId)).state.firmware.chipSince)

/** What speaks against writing a release now; null when everything was looked at. */
async function refusedBy(
  state: JobState,
  release: string | null,
  despite: readonly string[],
): Promise<string | null> {
  if (release === null) return 'There is no backup of a session here to put back.'
  const points = preFlight(
    firmwareView(state),
    supportOf(await referencesOf(state.intake.ticket.boardModelId)),
  )
  const against =
    points.find((p) => p.is === 'no') ?? points.find((p) => p.is === 'open' && !despite.includes(p.say))
  return against ? `Not yet: ${against.say}.` : null
}

/** How the last session at this job’s chip stands; null where there was none. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) =>
    Response.json({ session: await sessionNow(job.id) }),
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
    const { state } = await jobNow(job.id)
    const last = await lastSession(job.id, state.firmware.chipSince)
    if (last?.id === id) return Response.json({ session: last })
    // A session that did not come through is gone on with, or rolled back: what it kept is still the way back.
    const half = last !== null && last.ended !== null && last.ended !== 'verified' && last.backup !== null
    if (half && image !== last.image && image !== last.backup)
      return refuse(409, 'A session has not come through: go on with it, or roll back, first.', 'image')
    // What was kept before a write that came through may be put back over it.
    const putsBack = release === null && last?.ended === 'verified' && image === last.backup
    const fault = half || putsBack ? clipFault(state.firmware) : await refusedBy(state, release, despite)
    if (fault) return refuse(409, fault, 'image')
    for (const file of [image, ...(release === null ? [] : [release])])
      if (!(await hasFile(job.id, file))) return refuse(422, 'That image is not with this job.', 'image')
    const session = half
      ? { id, image, release: image === last.backup ? null : last.release, despite, backup: last.backup }
      : { id, image, release, despite, backup: null }
    const begun = await beginSession(job.id, state.seq, session)
    if (begun === 'another runs') return refuse(409, 'A session is under way at this chip already.', 'id')
    if (begun === 'begun') void runSession(job, account, session, chip, benchFault)
    return Response.json({ session: await sessionNow(job.id) })
  })
}

/** Asks the session that is under way to stop between two commands. */
export async function DELETE(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    await askToStop(job.id)
    return Response.json({ session: await sessionNow(job.id) })
  })
}
