import Joi from 'joi'
import { clipFault } from '@/core/firmware/clip'
import { attachToJob, storeImage } from '@/data/files'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { jobNow } from '@/data/job-now'
import { transaction } from '@/data/pool'
import { bodyJson } from '@/server/body'
import { forJob, refuse } from '@/server/answers'
import { chipContents } from '@/server/flash'
import { heavy } from '@/server/heavy'
import { simulatedChip } from '@/server/simulated-chip'
import { firmwareOf, soldOn } from '@/simulated-bench/chip-on-board'
import { readLines } from '@/simulated-bench/refitted-chip'
import { drawSfdp } from '@/simulated-bench/flash-chips'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** What the simulated bench is asked for: the chip's ID, a read of it, its lines by the meter, a release of the maker's. */
const asked = Joi.object({
  take: Joi.valid('id', 'read', 'release', 'lines').required(),
  version: Joi.string().max(40).when('take', { is: 'release', then: Joi.required() }),
})

const hexOf = (bytes: Uint8Array) => Buffer.from(bytes).toString('hex').toUpperCase()

const realBench = () =>
  refuse(404, 'This board is on a real bench: read its chip there, and open the file here.', 'tag')

const noModel = () => refuse(409, 'Choose the board’s model in the ticket first.', 'tag')

/** The releases the simulated maker offers for this board. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job) => {
    const hidden = await hiddenBoardOf(job.id)
    const { state } = await jobNow(job.id)
    const { boardModelId } = state.intake.ticket
    if (!hidden || !boardModelId) return Response.json({ versions: [] })
    return Response.json({ versions: firmwareOf(boardModelId).versions })
  })
}

/** Reads the simulated chip, or fetches a release; the image is kept with the job, the line is the asker's to write. */
export async function POST(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const { error, value } = asked.validate(await bodyJson(request))
    if (error) return refuse(422, error.message, String(error.details[0]?.path[0] ?? 'take'))
    const { take, version } = value as { take: 'id' | 'read' | 'release' | 'lines'; version?: string }
    const chip = await simulatedChip(job.id)
    if (!chip) return (await hiddenBoardOf(job.id)) ? noModel() : realBench()
    const { boardModelId } = chip
    const now = await jobNow(job.id)
    if (take === 'lines') return Response.json({ lines: readLines(chip.faults, chip.seed, now.state.seq) })
    const fault = take !== 'release' ? clipFault(now.state.firmware) : null
    if (fault) return refuse(409, fault, 'take')
    if (take === 'id') {
      const sold = soldOn(chip)
      return Response.json({ chipId: hexOf(Uint8Array.from(sold.id)), sfdp: hexOf(drawSfdp(sold)) })
    }
    const bytes =
      take === 'read'
        ? await chipContents(job.id, account.id, chip, now.state.seq, request.signal)
        : await heavy(account.id, 'releaseFile', { boardModelId, version: version! }, request.signal)
    if (!bytes) return refuse(404, `There is no release ${version} of this board.`, 'version')
    const file = await transaction(async (db) => {
      const stored = await storeImage(db, bytes)
      await attachToJob(db, job.id, stored.sha256, 'image')
      return stored
    })
    const name =
      take === 'read' ? `${job.tag} chip, line ${now.state.seq}.bin` : `${boardModelId} ${version}.bin`
    return Response.json({ file, name })
  })
}
