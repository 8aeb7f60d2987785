import { tapeFindings } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import Joi from 'joi'
import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { rename } from 'node:fs/promises'
import { join } from 'node:path'
import { PassThrough, Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import { pipeline } from 'node:stream/promises'
import { fromBufferPromise, openPromise } from 'yauzl'
import type { Entry as ZipEntry, ZipFile as OpenZip } from 'yauzl'
import { ZipFile } from 'yazl'
import { MAX_CONTACTS, trusts } from '@/core/socket/model/socket'
import { functionGroups } from '@/core/board/function-group'
import type { Socket } from '@/core/socket/model/socket'
import { oddText } from '@/core/tables/plain-text'
import { checkEntry, firstFault } from '@/entry-schemas/entry-schema'

/** One job as a ZIP: job.json, tape.json, socket.json, owner.json, files/<sha256>, and manifest.json with every hash. */
export interface JobFile {
  readonly tag: string
  readonly exportedAt: string
  readonly entries: readonly Entry[]
  readonly socket: Socket | null
  readonly owner: { readonly name: string; readonly contact: string } | null
  readonly files: readonly JobPicture[]
}

export interface JobPicture {
  readonly sha256: string
  readonly type: string
  readonly purpose: string
  /** How many. */
  readonly bytes: number
}

export interface JobFileFinding {
  readonly path: string
  readonly text: string
}

const FORMAT = 'arch-needle job'
const MB = 1024 * 1024
const MAX_TOTAL_BYTES = 256 * MB
const MAX_PARTS = 600
/** Lines of one tape that are read in. */
const MAX_LINES = 100_000
const endings: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'application/octet-stream': 'bin',
}
const fileTypes = Object.keys(endings)

const json = (value: unknown) => `${JSON.stringify(value, null, 1)}\n`

/**
 * The ZIP as it is written: tape and pictures are read when their turn comes, so none of them is held whole.
 * @param open a picture to read
 * @param extras files for the reader only, such as the map as SVG; they are not read back
 */
export function packJob(
  job: JobFile,
  open: (picture: JobPicture) => Readable,
  extras: Readonly<Record<string, string>> = {},
): Readable {
  const pictures = job.files.map(({ bytes: _, ...about }) => about)
  const zip = new ZipFile()
  const out = zip.outputStream.pipe(new PassThrough())
  zip.on('error', (error: Error) => out.destroy(error))
  const manifest: { path: string; bytes: number; sha256: string }[] = []
  const add = (path: string, text: string) => {
    const bytes = Buffer.from(text)
    manifest.push({ path, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') })
    zip.addBuffer(bytes, path)
  }
  add('job.json', json({ format: FORMAT, v: 1, tag: job.tag, exportedAt: job.exportedAt, pictures }))
  for (const [path, text] of Object.entries(extras)) add(path, text)
  if (job.socket) add('socket.json', json(job.socket))
  if (job.owner) add('owner.json', json(job.owner))
  zip.addReadStreamLazy('tape.json', (done) => {
    const hash = createHash('sha256')
    let bytes = 0
    const source = Readable.from(tapeText(job.entries))
    source.on('data', (piece: Buffer) => {
      hash.update(piece)
      bytes += piece.length
    })
    source.once('end', () => manifest.push({ path: 'tape.json', bytes, sha256: hash.digest('hex') }))
    done(null, source)
  })
  for (const file of job.files) {
    manifest.push({ path: picturePath(file), bytes: file.bytes, sha256: file.sha256 })
    // A picture is packed as it is: it would not become smaller.
    zip.addReadStreamLazy(picturePath(file), { size: file.bytes, compress: false }, (done) => {
      const source = open(file)
      source.once('error', (error) => out.destroy(error))
      done(null, source)
    })
  }
  // Its turn comes last, when everything else has gone through.
  zip.addReadStreamLazy('manifest.json', (done) => done(null, Readable.from([Buffer.from(json(manifest))])))
  zip.end()
  return out
}

const AT_ONCE = 200

/** A tape as JSON, a line of text for each of its lines, some at a time: a long one keeps nobody waiting. */
function* tapeText(entries: readonly Entry[]): Generator<Buffer> {
  for (let from = 0; from < entries.length; from += AT_ONCE) {
    const some = entries.slice(from, from + AT_ONCE).map((entry) => JSON.stringify(entry))
    yield Buffer.from(`${from === 0 ? '[' : ','}\n${some.join(',\n')}`)
  }
  yield Buffer.from(entries.length === 0 ? '[]\n' : '\n]\n')
}

const picturePath = (file: Pick<JobPicture, 'sha256' | 'type'>) =>
  `files/${file.sha256}.${endings[file.type] ?? 'bin'}`

const sha = Joi.string().hex().length(64).required()
const headSchema = Joi.object({
  format: Joi.valid(FORMAT).required(),
  v: Joi.valid(1).required(),
  tag: Joi.string().max(20).required(),
  exportedAt: Joi.string().isoDate().required(),
  pictures: Joi.array()
    .items(
      Joi.object({
        sha256: sha,
        type: Joi.valid(...fileTypes).required(),
        purpose: Joi.valid('photo', 'signature', 'image').required(),
      }),
    )
    .max(500)
    .required(),
})
const manifestSchema = Joi.array().items(
  Joi.object({
    path: Joi.string().max(200).required(),
    bytes: Joi.number().integer().min(0).required(),
    sha256: sha,
  }),
)
const ownerSchema = Joi.object({
  name: Joi.string().max(120).allow('').required(),
  contact: Joi.string().max(200).allow('').required(),
})
const socketSchema = Joi.object({
  id: Joi.string().max(60).required(),
  name: Joi.string().max(80).required(),
  kind: Joi.valid('land-grid', 'pin-grid').required(),
  pitchMm: Joi.number().greater(0).max(10).required(),
  contacts: Joi.array()
    .max(MAX_CONTACTS)
    .items(
      Joi.object({
        name: Joi.string()
          .pattern(/^[A-Z]{1,3}\d{1,3}$/)
          .required(),
        xMm: Joi.number().min(-100).max(100).required(),
        yMm: Joi.number().min(-100).max(100).required(),
        group: Joi.valid(...functionGroups).required(),
        net: Joi.string().max(80).required(),
        beamDeg: Joi.number().required(),
        trust: Joi.valid(...trusts).required(),
      }),
    )
    .required(),
})

/** What each JSON file of the ZIP has to be, line by line of the tape apart. */
export const zipSchemas = {
  'job.json': headSchema,
  'manifest.json': manifestSchema,
  'owner.json': ownerSchema,
  'socket.json': socketSchema,
} as const

/**
 * Reads a job's ZIP; every fault is a finding with the file it is in. The job is null when any was found.
 * @param zip the path of a file, or its bytes
 * @param keepIn folder in which its pictures are laid, each named by its hash; without one they are only checked
 */
export async function unpackJob(
  zip: string | Buffer,
  keepIn?: string,
): Promise<{ readonly job: JobFile | null; readonly findings: readonly JobFileFinding[] }> {
  const findings: JobFileFinding[] = []
  const say = (path: string, text: string) => findings.push({ path, text })
  const failed = () => ({ job: null, findings: findings.slice(0, 40) })
  const parts = await partsOf(zip, say, keepIn)
  if (!parts) return failed()

  const read = (path: string, schema: Joi.Schema): unknown => {
    const text = parts.get(path)?.text
    if (text === undefined) return (say(path, 'it is missing from the ZIP'), undefined)
    try {
      const raw = JSON.parse(text) as unknown
      const { error, value } = schema.validate(raw, { convert: false })
      const odd = !error && path !== 'tape.json' ? oddText(raw) : null
      if (odd !== null) return (say(path, `${odd}: it holds a character that can not be kept`), undefined)
      if (!error) return value
      const fault = firstFault(error)
      say(path, `${fault.field}: ${fault.text}`)
    } catch {
      say(path, 'it is not JSON; the ZIP may have been edited')
    }
    return undefined
  }

  const manifest = read('manifest.json', manifestSchema) as
    { path: string; bytes: number; sha256: string }[] | undefined
  const listed = new Set(manifest?.map((m) => m.path))
  for (const m of manifest ?? []) {
    const part = parts.get(m.path)
    if (!part) say(m.path, 'the manifest names it but it is missing')
    else if (part.sha256 !== m.sha256)
      say(m.path, 'its content is not what the manifest says; it was changed or damaged')
  }
  for (const path of parts.keys())
    if (manifest && path !== 'manifest.json' && !listed.has(path)) say(path, 'the manifest does not name it')

  const head = read('job.json', headSchema) as
    (Omit<JobFile, 'files'> & { pictures: Omit<JobPicture, 'bytes'>[] }) | undefined
  const raw = read('tape.json', Joi.array().max(MAX_LINES)) as unknown[] | undefined
  const socket = parts.has('socket.json') ? (read('socket.json', socketSchema) as Socket | undefined) : null
  const owner = parts.has('owner.json') ? (read('owner.json', ownerSchema) as JobFile['owner']) : null
  const entries = raw ? readEntries(raw, say) : []
  const files = (head?.pictures ?? []).flatMap((picture): JobPicture[] => {
    const path = picturePath(picture)
    const part = parts.get(path)
    if (!part) return (say(path, 'job.json names it but it is missing'), [])
    if (part.sha256 !== picture.sha256) say(path, 'its content does not have the hash it is named by')
    return [{ ...picture, bytes: part.bytes }]
  })
  const has = new Set(files.map((f) => f.sha256))
  // A signature may stay with the shop it was given to, or have been erased with its owner.
  for (const entry of entries)
    if ((entry.kind === 'consent' || entry.kind === 'sheet signed') && entry.body.signature !== null)
      has.add(entry.body.signature)
  for (const f of tapeFindings(entries, (sha) => has.has(sha)))
    say('tape.json', `line ${f.line}, ${f.field}: ${f.text}`)

  if (!head || !raw || socket === undefined || owner === undefined || findings.length > 0) return failed()
  return { job: { tag: head.tag, exportedAt: head.exportedAt, entries, socket, owner, files }, findings: [] }
}

/** What a part of the ZIP may unfold to, bytes: by its path, from the front. */
const mostOf: readonly (readonly [path: RegExp, bytes: number])[] = [
  [/^tape\.(json|csv)$/, 48 * MB],
  [/^socket\.json$/, 4 * MB],
  [/^files\/.*\.bin$/, 64 * MB],
  [/^files\//, 41 * MB],
  [/^(map\.svg|marked-contacts\.csv)$/, 16 * MB],
  [/./, MB],
]
const readAsText = /^[a-z]+\.json$/

/** A part of the ZIP that was read through. */
interface Part {
  readonly sha256: string
  readonly bytes: number
  /** Where it is one that is looked into. */
  readonly text?: string
}

/** Reads a ZIP part by part; what a part is said to unfold to is the most it may. Null when it is none; that is said. */
async function partsOf(
  zip: string | Buffer,
  say: (path: string, text: string) => void,
  keepIn?: string,
): Promise<ReadonlyMap<string, Part> | null> {
  const parts = new Map<string, Part>()
  const stop = (path: string, text: string) => (say(path, text), null)
  try {
    const opened = await (typeof zip === 'string' ? openPromise(zip) : fromBufferPromise(zip))
    let total = 0
    if (opened.entryCount > MAX_PARTS) {
      opened.close()
      return stop('', `it has more than ${MAX_PARTS} parts`)
    }
    for await (const entry of opened.eachEntry()) {
      const { fileName: path, uncompressedSize: bytes } = entry
      if (path.endsWith('/')) continue
      if (parts.has(path)) return stop(path, 'it is in the ZIP twice')
      const most = mostOf.find(([of]) => of.test(path))![1]
      total += bytes
      if (bytes > most || total > MAX_TOTAL_BYTES) return stop(path, 'it unfolds to more than a job may hold')
      parts.set(path, await readPart(opened, entry, keepIn))
    }
    if (parts.size > 0) return parts
  } catch (error) {
    // A disk that is full is no fault of the ZIP.
    if (error instanceof Error && 'syscall' in error && error.syscall !== 'read') throw error
  }
  return stop('', 'this is not a ZIP, or it was cut short: fetch it again')
}

async function readPart(zip: OpenZip, entry: ZipEntry, keepIn?: string): Promise<Part> {
  const { fileName: path, uncompressedSize: bytes } = entry
  const source = await zip.openReadStreamPromise(entry)
  const hash = createHash('sha256')
  source.on('data', (piece: Buffer) => hash.update(piece))
  if (readAsText.test(path)) {
    const text = (await buffer(source)).toString('utf8')
    return { sha256: hash.digest('hex'), bytes, text }
  }
  if (keepIn === undefined || !path.startsWith('files/')) {
    for await (const _ of source);
    return { sha256: hash.digest('hex'), bytes }
  }
  const begun = join(keepIn, 'part')
  await pipeline(source, createWriteStream(begun))
  const sha256 = hash.digest('hex')
  await rename(begun, join(keepIn, sha256))
  return { sha256, bytes }
}

function readEntries(raw: readonly unknown[], say: (path: string, text: string) => void): Entry[] {
  const entries: Entry[] = []
  const schema = Joi.object({
    seq: Joi.number().integer().min(1).required(),
    by: Joi.string().max(60).required(),
    v: Joi.valid(1).required(),
  })
  let faults = 0
  raw.forEach((line, i) => {
    if (faults > 60) return
    const { seq, by, v, ...rest } = (line ?? {}) as Record<string, unknown>
    const outer = schema.validate({ seq, by, v }, { convert: false })
    const inner = checkEntry(rest)
    if (outer.error || oddText(by) !== null || !inner.ok) faults++
    if (outer.error) say('tape.json', `line ${i + 1}: ${firstFault(outer.error).text}`)
    else if (oddText(by) !== null)
      say('tape.json', `line ${i + 1}, by: it holds a character that can not be kept`)
    else if (!inner.ok) say('tape.json', `line ${i + 1}, ${inner.fault.field}: ${inner.fault.text}`)
    else entries.push({ ...inner.value, seq, by, v } as unknown as Entry)
  })
  return entries
}
