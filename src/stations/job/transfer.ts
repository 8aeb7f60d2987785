import 'server-only'
import { createHash } from 'node:crypto'
import { canonical } from '@/core/job/canonical'
import { displayList } from '@/core/socket/display-list'
import { toSvg } from '@/core/socket/svg'
import type { Account } from '@/data/accounts'
import { attachToJob, fileBytes, filesOfJob, findFile, storeBytes } from '@/data/files'
import { createJob, customerOf, saveCustomer } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import { transaction } from '@/data/pool'
import type { Queryable } from '@/data/pool'
import { addSocket, listSockets, socketById } from '@/data/sockets'
import { foldTape, layTape, readTape } from '@/data/tape'
import type { Socket } from '@/core/socket/socket'
import { marksCsv } from '@/stations/socket/contact-csv'
import { packJob, unpackJob } from './job-zip'
import type { JobFile, JobFileFinding, JobPicture } from './job-zip'

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

/** The job as one ZIP that can be read back; without the owner their name, contact and signature stay here. */
export async function exportJob(job: Job, withOwner: boolean): Promise<Uint8Array> {
  const entries = await readTape(job.id)
  const { state, socket } = await foldTape(entries)
  const customer = withOwner ? await customerOf(job.customerId) : null
  const files: JobPicture[] = []
  for (const { sha256: hash, type, purpose } of await filesOfJob(job.id)) {
    if (purpose === 'signature' && !withOwner) continue
    const head = await findFile({ jobId: job.id }, hash)
    if (head) files.push({ sha256: hash, type, purpose, bytes: await fileBytes(head.id) })
  }
  const pass = state.passes.at(-1) ?? null
  const text = new TextEncoder()
  const extras: Record<string, Uint8Array> = {}
  if (socket) {
    const svg = toSvg(displayList(socket, pass), socket.pitchMm, 'paper', `${job.tag} ${socket.name}`)
    extras['map.svg'] = text.encode(svg)
    extras['marked-contacts.csv'] = text.encode(marksCsv(socket, pass))
  }
  const owner = customer && !customer.erased ? { name: customer.name, contact: customer.contact } : null
  return packJob(
    { tag: job.tag, exportedAt: new Date().toISOString(), entries, socket, owner, files },
    sha256,
    extras,
  )
}

export type Imported =
  | { readonly ok: true; readonly tag: string }
  | { readonly ok: false; readonly findings: readonly JobFileFinding[] }

/** Reads a job's ZIP as a job of its own, all or nothing. The client's id makes a retry harmless. */
export async function importJob(zip: Uint8Array, id: string, account: Account): Promise<Imported> {
  const { job, findings } = unpackJob(zip, sha256)
  if (!job) return { ok: false, findings }
  return transaction(async (db): Promise<Imported> => {
    const tag = await createJob(id, account.id, db)
    if ((await readTape(id, 0, db)).length > 0) return { ok: true, tag }
    if (job.socket) {
      const clash = await keepSocket(job.socket, job.tag, db)
      if (clash) return { ok: false, findings: [{ path: 'socket.json', text: clash }] }
    }
    for (const file of job.files) {
      const stored = await storeBytes(db, file.bytes, file.type)
      await attachToJob(db, id, stored.sha256, file.purpose)
    }
    await layTape(id, job.entries, null, db)
    await keepOwner(job, id, db)
    return { ok: true, tag }
  })
}

/** A socket the library does not have is added; one of the same id must be the same. */
async function keepSocket(socket: Socket, from: string, db: Queryable): Promise<string | null> {
  const known = await socketById(socket.id, db)
  if (known) {
    const same = canonical(known.contacts) === canonical(socket.contacts)
    return same ? null : `the library has another table as ${socket.id}; remove one of the two`
  }
  const taken = (await listSockets(db)).some((s) => s.name === socket.name)
  await addSocket(
    taken ? { ...socket, name: `${socket.name} (from ${from})` } : socket,
    `from job ${from}`,
    db,
  )
  return null
}

async function keepOwner(job: JobFile, id: string, db: Queryable): Promise<void> {
  if (job.owner) await saveCustomer(id, job.owner.name, job.owner.contact, db)
}
