import { readVersion, sheetVersions } from '@/core/job/sheet-versions'
import { adviceSettingOf } from '@/data/advice-setting'
import { fileChunks, findFile } from '@/data/files'
import { customerOf } from '@/data/jobs'
import { jobNow } from '@/data/job-now'
import { readTape } from '@/data/read-tape'
import { heavy } from '@/server/heavy'
import { readerOf } from '@/server/reader'
import { forJob, refuse } from '@/server/answers'
import { download } from '@/job/download'

interface Context {
  readonly params: Promise<{ tag: string }>
}

/** The sheet as a PDF: `for=technician` for the technical one, `version=1` for the one that was signed first. */
export async function GET(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (job, account) => {
    const query = new URL(request.url).searchParams
    const { state, socket } = await jobNow(job.id)
    const setting = await adviceSettingOf(job, state.intake.ticket)
    const versions = sheetVersions(await readTape(job.id), socket, setting)
    const asked = query.get('version')
    const chosen = asked === null ? versions.at(-1)! : versions.find((v) => String(v.version) === asked)
    if (!chosen) return refuse(404, `There is no such version; there are 1 to ${versions.length}.`, 'version')
    const { version, signed } = chosen
    const { at, sheet, words, technical } = readVersion(chosen, socket, new Date().toISOString(), setting)
    const forTechnician = query.get('for') === 'technician'
    const customer = await customerOf(job.customerId)
    const pdf = await heavy(
      account.id,
      'pdf',
      {
        words,
        maps: sheet.maps,
        technical: forTechnician ? technical : null,
        version,
        signed: signed && { ...signed, png: await signatureOf(job.id, signed.signature) },
        tag: job.tag,
        at,
        reader: await readerOf(),
        owner: customer?.name ?? '',
        socket,
      },
      request.signal,
    )
    return download(pdf, 'application/pdf', `${job.tag}-${forTechnician ? 'technical' : 'hand-back'}.pdf`)
  })
}

/** Whoever reads a sheet may print it next: the printer is ready by then. */
export async function HEAD(request: Request, { params }: Context) {
  return forJob((await params).tag, request, async (_, account) => {
    await heavy(account.id, 'printer', { reader: await readerOf() }, request.signal)
    return new Response(null, { status: 204 })
  })
}

/** The signature’s picture; none where there is none, or it was erased with its owner. */
async function signatureOf(jobId: string, sha256: string | null): Promise<Uint8Array | null> {
  const file = sha256 && (await findFile({ jobId }, sha256))
  if (!file) return null
  const chunks: Buffer[] = []
  for await (const chunk of fileChunks(file.id)) chunks.push(chunk)
  return new Uint8Array(Buffer.concat(chunks))
}
