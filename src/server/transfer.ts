import 'server-only'
import type { Entry } from '@/core/job/job-state'
import { createWriteStream } from 'node:fs'
import { mkdtemp, open as openFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import sharp from 'sharp'
import { canonical } from '@/core/tape/canonical'
import { displayList } from '@/core/socket/map/display-list'
import { toSvg } from '@/core/socket/map/svg'
import type { Account } from '@/data/accounts'
import {
  attachToJob,
  fileChunks,
  FileRefused,
  filesOfJob,
  findFile,
  IMAGE_TYPE,
  pictureType,
  storeFile,
  storeImage,
} from '@/data/files'
import type { Picture, StoredFile } from '@/data/files'
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
import { tapeCsv } from '@/tables/tape-csv'
import { heavy } from '@/server/heavy'
import { rewritten } from '@/server/uploads'
import { packJob } from './job-zip'
import type { JobFile, JobFileFinding, JobPicture } from './job-zip'

/** The job as one ZIP that can be read back; without the owner their name, contact and signature stay here. */
export async function exportJob(job: Job, withOwner: boolean): Promise<Readable> {
  const entries = await readTape(job.id)
  const { state, socket } = await foldTape(entries)
  const customer = withOwner ? await customerOf(job.customerId) : null
  const files: JobPicture[] = []
  const ids = new Map<string, string>()
  for (const { sha256: hash, type, purpose } of await filesOfJob(job.id)) {
    if (purpose === 'signature' && !withOwner) continue
    const head = await findFile({ jobId: job.id }, hash)
    if (!head) continue
    files.push({ sha256: hash, type, purpose, bytes: head.bytes })
    ids.set(hash, head.id)
  }
  const pass = state.socket.passes.at(-1) ?? null
  const extras: Record<string, string> = { 'tape.csv': tapeCsv(entries) }
  if (socket) {
    extras['map.svg'] = toSvg(displayList(socket, pass), socket.pitchMm, 'paper', `${job.tag} ${socket.name}`)
    extras['marked-contacts.csv'] = marksCsv(socket, pass)
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
  return packJob(whole, ({ sha256 }) => Readable.from(fileChunks(ids.get(sha256)!)), extras)
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
 * Reads a job's ZIP, as it comes, as a job of its own, all or nothing. The client's id makes a retry harmless; a job
 * that is here already is known by its lines and is not laid a second time.
 */
export async function importJob(
  zip: AsyncIterable<Uint8Array>,
  id: string,
  account: Account,
  signal?: AbortSignal,
): Promise<Imported> {
  const folder = await mkdtemp(join(tmpdir(), 'needle-import-'))
  try {
    const received = join(folder, 'received')
    await pipeline(zip, createWriteStream(received))
    const { job, findings } = await heavy(account.id, 'unpack', { zip: received, keepIn: folder }, signal)
    if (!job) return { ok: false, findings }
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
        const stored =
          picture.type === IMAGE_TYPE ? await storeImage(db, picture.path) : await storeFile(db, picture)
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
  for (const file of job.files) {
    const path = `files/${file.sha256}`
    const from = join(folder, file.sha256)
    if (file.purpose === 'image') {
      kept.push({ picture: asItIs(from, file), sha256: file.sha256, purpose: file.purpose })
      continue
    }
    const type = pictureType(await headOf(from))
    if (type !== file.type) throw notRead(path, `it is not the ${file.type} it is said to be`)
    try {
      const again = await rewritten(from, type, `${from}-again`)
      const picture = (await isBare(from)) ? { ...again, path: from } : again
      kept.push({ picture, sha256: file.sha256, purpose: file.purpose })
    } catch (error) {
      if (error instanceof FileRefused) throw notRead(path, error.message)
      throw error
    }
  }
  return kept
}

/** A firmware image, byte for byte. */
const asItIs = (path: string, { bytes }: JobPicture): Picture => ({
  path,
  type: IMAGE_TYPE,
  bytes,
  width: 0,
  height: 0,
})

async function headOf(path: string): Promise<Uint8Array> {
  const file = await openFile(path)
  try {
    const { buffer, bytesRead } = await file.read(new Uint8Array(16), 0, 16, 0)
    return buffer.subarray(0, bytesRead)
  } finally {
    await file.close()
  }
}

/** Nothing stands beside the picture itself: no place, no maker, no turn. */
async function isBare(path: string): Promise<boolean> {
  const { exif, xmp, iptc, comments, orientation } = await sharp(path).metadata()
  return !exif && !xmp && !iptc && !comments?.length && (orientation ?? 1) === 1
}

/** The same line, naming the files as they are kept here. */
function withFiles(entry: Entry, kept: ReadonlyMap<string, StoredFile>): Entry {
  if (entry.kind === 'photo') {
    const file = kept.get(entry.body.file)
    return file ? { ...entry, body: { ...entry.body, file: file.sha256, bytes: file.bytes } } : entry
  }
  if (entry.kind === 'consent' || entry.kind === 'sheet signed') {
    const file = kept.get(entry.body.signature ?? '')
    return file ? ({ ...entry, body: { ...entry.body, signature: file.sha256 } } as typeof entry) : entry
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
