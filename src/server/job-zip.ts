import { tapeFindings } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import Joi from 'joi'
import { strFromU8, strToU8, Unzip, UnzipInflate, zipSync } from 'fflate'
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
  readonly bytes: Uint8Array
}

export interface JobFileFinding {
  readonly path: string
  readonly text: string
}

type Sha256 = (bytes: Uint8Array) => string

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
}
const pictureTypes = Object.keys(endings)

const json = (value: unknown) => strToU8(`${JSON.stringify(value, null, 1)}\n`)

/** @param extras files for the reader only, such as the map as SVG; they are not read back */
export function packJob(
  job: JobFile,
  sha256: Sha256,
  extras: Readonly<Record<string, Uint8Array>> = {},
): Uint8Array {
  const pictures = job.files.map(({ bytes: _, ...about }) => about)
  const parts: Record<string, Uint8Array> = {
    'job.json': json({ format: FORMAT, v: 1, tag: job.tag, exportedAt: job.exportedAt, pictures }),
    'tape.json': json(job.entries),
    ...extras,
  }
  if (job.socket) parts['socket.json'] = json(job.socket)
  if (job.owner) parts['owner.json'] = json(job.owner)
  for (const file of job.files) parts[picturePath(file)] = file.bytes
  const manifest = Object.entries(parts).map(([path, bytes]) => ({
    path,
    bytes: bytes.length,
    sha256: sha256(bytes),
  }))
  parts['manifest.json'] = json(manifest)
  return zipSync(parts, { level: 6 })
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
        type: Joi.valid(...pictureTypes).required(),
        purpose: Joi.valid('photo', 'signature').required(),
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

/** Reads a job's ZIP; every fault is a finding with the file it is in. The job is null when any was found. */
export function unpackJob(
  zip: Uint8Array,
  sha256: Sha256,
): { readonly job: JobFile | null; readonly findings: readonly JobFileFinding[] } {
  const findings: JobFileFinding[] = []
  const say = (path: string, text: string) => findings.push({ path, text })
  const failed = () => ({ job: null, findings: findings.slice(0, 40) })
  const parts = openZip(zip, say)
  if (!parts) return failed()

  const read = (path: string, schema: Joi.Schema): unknown => {
    const bytes = parts[path]
    if (!bytes) return (say(path, 'it is missing from the ZIP'), undefined)
    try {
      const raw = JSON.parse(strFromU8(bytes)) as unknown
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
    const bytes = parts[m.path]
    if (!bytes) say(m.path, 'the manifest names it but it is missing')
    else if (sha256(bytes) !== m.sha256)
      say(m.path, 'its content is not what the manifest says; it was changed or damaged')
  }
  for (const path of Object.keys(parts))
    if (manifest && path !== 'manifest.json' && !listed.has(path)) say(path, 'the manifest does not name it')

  const head = read('job.json', headSchema) as
    (Omit<JobFile, 'files'> & { pictures: Omit<JobPicture, 'bytes'>[] }) | undefined
  const raw = read('tape.json', Joi.array().max(MAX_LINES)) as unknown[] | undefined
  const socket = parts['socket.json'] ? (read('socket.json', socketSchema) as Socket | undefined) : null
  const owner = parts['owner.json'] ? (read('owner.json', ownerSchema) as JobFile['owner']) : null
  const entries = raw ? readEntries(raw, say) : []
  const files = (head?.pictures ?? []).flatMap((picture): JobPicture[] => {
    const path = picturePath(picture)
    const bytes = parts[path]
    if (!bytes) return (say(path, 'job.json names it but it is missing'), [])
    if (sha256(bytes) !== picture.sha256) say(path, 'its content does not have the hash it is named by')
    return [{ ...picture, bytes }]
  })
  const has = new Set(files.map((f) => f.sha256))
  // A signature may stay with the shop it was given to, or have been erased with its owner.
  for (const entry of entries)
    if (entry.kind === 'consent' && entry.body.signature !== null) has.add(entry.body.signature)
  for (const f of tapeFindings(entries, (sha) => has.has(sha)))
    say('tape.json', `line ${f.line}, ${f.field}: ${f.text}`)

  if (!head || !raw || socket === undefined || owner === undefined || findings.length > 0) return failed()
  return { job: { tag: head.tag, exportedAt: head.exportedAt, entries, socket, owner, files }, findings: [] }
}

/** What a part of the ZIP may unfold to, bytes: by its path, from the front. */
const mostOf: readonly (readonly [path: RegExp, bytes: number])[] = [
  [/^tape\.json$/, 48 * MB],
  [/^socket\.json$/, 4 * MB],
  [/^files\//, 41 * MB],
  [/^(map\.svg|marked-contacts\.csv)$/, 16 * MB],
  [/./, MB],
]
const SLICE = 64 * 1024

/** Stops the unfolding; the finding was said. */
class TooLarge extends Error {}

/**
 * Opens a ZIP slice by slice, counting what it unfolds to as it unfolds: what its parts are said to be does not count.
 */
function openZip(
  zip: Uint8Array,
  say: (path: string, text: string) => void,
): Record<string, Uint8Array> | null {
  const parts: Record<string, Uint8Array> = {}
  let total = 0
  let open = 0
  let seen = 0
  const stop = (path: string, text: string): never => {
    say(path, text)
    throw new TooLarge(text)
  }
  const unzip = new Unzip((file) => {
    if (file.name.endsWith('/')) return
    if (++seen > MAX_PARTS) stop(file.name, `it has more than ${MAX_PARTS} parts`)
    const most = mostOf.find(([path]) => path.test(file.name))![1]
    const pieces: Uint8Array[] = []
    let bytes = 0
    open++
    file.ondata = (error, piece, last) => {
      if (error) throw error
      bytes += piece.length
      total += piece.length
      if (bytes > most || total > MAX_TOTAL_BYTES) stop(file.name, 'it unfolds to more than a job may hold')
      pieces.push(piece.slice())
      if (!last) return
      open--
      const whole = new Uint8Array(bytes)
      let at = 0
      for (const p of pieces) {
        whole.set(p, at)
        at += p.length
      }
      parts[file.name] = whole
    }
    file.start()
  })
  unzip.register(UnzipInflate)
  try {
    for (let from = 0; from < zip.length; from += SLICE)
      unzip.push(zip.subarray(from, from + SLICE), from + SLICE >= zip.length)
  } catch (error) {
    if (!(error instanceof TooLarge)) say('', 'this is not a ZIP, or it was cut short: fetch it again')
    return null
  }
  if (seen > 0 && open === 0) return parts
  say('', 'this is not a ZIP, or it was cut short: fetch it again')
  return null
}

function readEntries(raw: readonly unknown[], say: (path: string, text: string) => void): Entry[] {
  const entries: Entry[] = []
  const schema = Joi.object({
    seq: Joi.number().integer().min(1).required(),
    by: Joi.string().max(60).required(),
    v: Joi.valid(1).required(),
  })
  let said = 0
  raw.forEach((line, i) => {
    if (said > 60) return
    const { seq, by, v, ...rest } = (line ?? {}) as Record<string, unknown>
    const outer = schema.validate({ seq, by, v }, { convert: false })
    const inner = checkEntry(rest)
    if (outer.error || oddText(by) !== null || !inner.ok) said++
    if (outer.error) say('tape.json', `line ${i + 1}: ${firstFault(outer.error).text}`)
    else if (oddText(by) !== null)
      say('tape.json', `line ${i + 1}, by: it holds a character that can not be kept`)
    else if (!inner.ok) say('tape.json', `line ${i + 1}, ${inner.fault.field}: ${inner.fault.text}`)
    else entries.push({ ...inner.value, seq, by, v } as unknown as Entry)
  })
  return entries
}
