import 'server-only'
import type { Entry } from '@/core/job/job-state'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import sharp from 'sharp'
import { canonical } from '@/core/tape/canonical'
import { displayList } from '@/core/socket/map/display-list'
import { toSvg } from '@/core/socket/map/svg'
import type { Account } from '@/data/accounts'
import {
  attachToJob,
  fileBytes,
  FileRefused,
  filesOfJob,
  findFile,
  pictureType,
  storeFile,
} from '@/data/files'
import type { StoredFile } from '@/data/files'
import { createJob, customerOf, jobWithLine, saveCustomer } from '@/data/jobs'
import type { Job } from '@/data/jobs'
import { transaction } from '@/data/pool'
import type { Queryable } from '@/data/pool'
import { addSocket, listSockets, socketById } from '@/data/sockets'
import { foldTape } from '@/data/job-now'
import { readTape } from '@/data/read-tape'
import { layTape } from '@/data/tape'
import type { Socket } from '@/core/socket/model/socket'
import { marksCsv } from '@/tables/contact-csv'
import { heavy } from '@/server/heavy'
import { rewritten } from '@/server/uploads'
import type { JobFile, JobFileFinding, JobPicture } from './job-zip'

/** The job as one ZIP that can be read back; without the owner their name, contact and signature stay here. */
export async function exportJob(
  job: Job,
  withOwner: boolean,
  account: string,
  signal?: AbortSignal,
): Promise<Uint8Array> {
  const entries = await readTape(job.id)
  const { state, socket } = await foldTape(entries)
  const customer = withOwner ? await customerOf(job.customerId) : null
  const files: JobPicture[] = []
  for (const { sha256: hash, type, purpose } of await filesOfJob(job.id)) {
    if (purpose === 'signature' && !withOwner) continue
    const head = await findFile({ jobId: job.id }, hash)
    if (head) files.push({ sha256: hash, type, purpose, bytes: await fileBytes(head.id) })
  }
  const pass = state.socket.passes.at(-1) ?? null
  const text = new TextEncoder()
  const extras: Record<string, Uint8Array> = {}
  if (socket) {
    const svg = toSvg(displayList(socket, pass), socket.pitchMm, 'paper', `${job.tag} ${socket.name}`)
    extras['map.svg'] = text.encode(svg)
    extras['marked-contacts.csv'] = text.encode(marksCsv(socket, pass))
  }
  const owner = customer && !customer.erased ? { name: customer.name, contact: customer.contact } : null
  const whole: JobFile = {
    tag: job.tag,
    exportedAt: new Date().toISOString(),
    entries,
    socket,
    owner,
    files,
  }
  return heavy(account, 'pack', { job: whole, extras }, signal)
}

export type Imported =
  | { readonly ok: true; readonly tag: string; readonly known: boolean }
  | { readonly ok: false; readonly findings: readonly JobFileFinding[] }

/** Nothing of it is kept; the findings say why. */
class NotRead extends Error {
  constructor(readonly findings: readonly JobFileFinding[]) {
    super('not read in')
  }
}
const notRead = (path: string, text: string) => new NotRead([{ path, text }])

/**
 * Reads a job's ZIP as a job of its own, all or nothing. The client's id makes a retry harmless; a job that is here
 * already is known by its lines and is not laid a second time.
 */
export async function importJob(
  zip: Uint8Array,
  id: string,
  account: Account,
  signal?: AbortSignal,
): Promise<Imported> {
  const { job, findings } = await heavy(account.id, 'unpack', { zip }, signal)
  if (!job) return { ok: false, findings }
  const folder = await mkdtemp(join(tmpdir(), 'needle-import-'))
  try {
    const pictures = await cleanPictures(job, folder)
    return await transaction(async (db): Promise<Imported> => {
      const here = await alreadyHere(job, id, db)
      if (here) return { ok: true, tag: here, known: true }
      const tag = await createJob(id, account.id, db)
      if ((await readTape(id, 0, db)).length > 0) return { ok: true, tag, known: false }
      if (job.socket) {
        const clash = await keepSocket(job.socket, job.tag, db)
        if (clash) throw notRead('socket.json', clash)
      }
      const renamed = new Map<string, StoredFile>()
      for (const { picture, sha256: was, purpose } of pictures) {
        const stored = await storeFile(db, picture)
        await attachToJob(db, id, stored.sha256, purpose)
        renamed.set(was, stored)
      }
      await layTape(
        id,
        job.entries.map((entry) => withFiles(entry, renamed)),
        null,
        db,
      )
      await keepOwner(job, id, db)
      return { ok: true, tag, known: false }
    })
  } catch (error) {
    if (error instanceof NotRead) return { ok: false, findings: error.findings }
    throw error
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/**
 * The tag of the job these lines are, where it is here already: as far as both go, line for line. A tape that goes on
 * otherwise than the one here is refused: which of the two is true, nobody can say.
 */
async function alreadyHere(job: JobFile, id: string, db: Queryable): Promise<string | null> {
  const first = job.entries[0]
  if (!first) return null
  const known = await jobWithLine(first.id, db)
  if (!known || known.id === id) return null
  const here = await readTape(known.id, 0, db)
  const both = Math.min(here.length, job.entries.length)
  for (let i = 0; i < both; i++)
    if (here[i]!.id !== job.entries[i]!.id)
      throw notRead('tape.json', `this job is here as ${known.tag}, and the two differ from line ${i + 1} on`)
  if (job.entries.length > here.length)
    throw notRead(
      'tape.json',
      `this job is here as ${known.tag} with ${here.length} lines; the ZIP goes on to line ${job.entries.length}: go on with the one here`,
    )
  return known.tag
}

/** Every picture decoded as an upload is, and written anew where anything stands beside it. */
async function cleanPictures(job: JobFile, folder: string) {
  const kept = []
  for (const [i, file] of job.files.entries()) {
    const path = `files/${file.sha256}`
    const type = pictureType(file.bytes)
    if (type !== file.type) throw notRead(path, `it is not the ${file.type} it is said to be`)
    try {
      const to = join(folder, String(i))
      const again = await rewritten(file.bytes, type, to)
      if (await isBare(file.bytes)) await writeFile(to, file.bytes)
      kept.push({ picture: again, sha256: file.sha256, purpose: file.purpose })
    } catch (error) {
      if (error instanceof FileRefused) throw notRead(path, error.message)
      throw error
    }
  }
  return kept
}

/** Nothing stands beside the picture itself: no place, no maker, no turn. */
async function isBare(bytes: Uint8Array): Promise<boolean> {
  const { exif, xmp, iptc, comments, orientation } = await sharp(bytes).metadata()
  return !exif && !xmp && !iptc && !comments?.length && (orientation ?? 1) === 1
}

/** The same line, naming the files as they are kept here. */
function withFiles(entry: Entry, kept: ReadonlyMap<string, StoredFile>): Entry {
  if (entry.kind === 'photo') {
    const file = kept.get(entry.body.file)
    return file ? { ...entry, body: { ...entry.body, file: file.sha256, bytes: file.bytes } } : entry
  }
  if (entry.kind === 'consent' && entry.body.signature !== null) {
    const file = kept.get(entry.body.signature)
    return file ? { ...entry, body: { ...entry.body, signature: file.sha256 } } : entry
  }
  return entry
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
