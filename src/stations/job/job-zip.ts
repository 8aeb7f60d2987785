import Joi from 'joi'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import type { Entry } from '@/core/job/entry'
import { tapeFindings } from '@/core/job/tape-findings'
import { functionGroups, MAX_CONTACTS, trusts } from '@/core/socket/socket'
import type { Socket } from '@/core/socket/socket'
import { checkEntry, firstFault } from './entry-schema'

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
const MAX_ENTRY_BYTES = 64 * 1024 * 1024
const MAX_TOTAL_BYTES = 512 * 1024 * 1024
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
      const { error, value } = schema.validate(JSON.parse(strFromU8(bytes)), { convert: false })
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
  const raw = read('tape.json', Joi.array().max(200_000)) as unknown[] | undefined
  const socket = parts['socket.json'] ? (read('socket.json', socketSchema) as Socket | undefined) : null
  const owner = parts['owner.json'] ? (read('owner.json', ownerSchema) as JobFile['owner']) : null
  const entries = raw ? readEntries(raw, say) : []
  for (const f of tapeFindings(entries)) say('tape.json', `line ${f.line}, ${f.field}: ${f.text}`)

  const files = (head?.pictures ?? []).flatMap((picture): JobPicture[] => {
    const path = picturePath(picture)
    const bytes = parts[path]
    if (!bytes) return (say(path, 'job.json names it but it is missing'), [])
    if (sha256(bytes) !== picture.sha256) say(path, 'its content does not have the hash it is named by')
    return [{ ...picture, bytes }]
  })
  const has = new Set(files.map((f) => f.sha256))
  for (const entry of entries)
    if (entry.kind === 'photo' && !has.has(entry.body.file))
      say('tape.json', `line ${entry.seq}: its photo is not in the ZIP`)

  if (!head || !raw || socket === undefined || owner === undefined || findings.length > 0) return failed()
  return { job: { tag: head.tag, exportedAt: head.exportedAt, entries, socket, owner, files }, findings: [] }
}

/** Opens a ZIP without ever unfolding more than it may hold. */
function openZip(
  zip: Uint8Array,
  say: (path: string, text: string) => void,
): Record<string, Uint8Array> | null {
  let total = 0
  let tooLarge = ''
  try {
    const parts = unzipSync(zip, {
      filter(file) {
        total += file.originalSize
        if (file.originalSize > MAX_ENTRY_BYTES || total > MAX_TOTAL_BYTES) tooLarge ||= file.name
        return !tooLarge && !file.name.endsWith('/')
      },
    })
    if (!tooLarge) return parts
    say(tooLarge, 'it unfolds to more than a job may hold')
  } catch {
    say('', 'this is not a ZIP, or it was cut short: fetch it again')
  }
  return null
}

function readEntries(raw: readonly unknown[], say: (path: string, text: string) => void): Entry[] {
  const entries: Entry[] = []
  const schema = Joi.object({
    seq: Joi.number().integer().min(1).required(),
    by: Joi.string().max(60).required(),
    v: Joi.valid(1).required(),
  })
  raw.forEach((line, i) => {
    const { seq, by, v, ...rest } = (line ?? {}) as Record<string, unknown>
    const outer = schema.validate({ seq, by, v }, { convert: false })
    const inner = checkEntry(rest)
    if (outer.error) say('tape.json', `line ${i + 1}: ${firstFault(outer.error).text}`)
    else if (!inner.ok) say('tape.json', `line ${i + 1}, ${inner.fault.field}: ${inner.fault.text}`)
    else entries.push({ ...inner.value, seq, by, v } as unknown as Entry)
  })
  return entries
}
