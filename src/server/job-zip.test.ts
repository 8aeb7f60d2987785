import { lineFault, jobState } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import { createHash } from 'node:crypto'
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import fc from 'fast-check'
import { strToU8, unzipSync, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { anyTape } from '@/core/job/any-tape.testing'
import { tape } from '@/core/job/tape.testing'
import { anyMarks, smallField } from '@/core/socket/model/field.testing'
import { packJob, unpackJob } from './job-zip'
import type { JobFile } from './job-zip'

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
const picture = strToU8('not really a picture')
const socket = smallField()

const job = (change: Partial<JobFile> = {}): JobFile => ({
  tag: 'Q-0001',
  exportedAt: '2026-11-24T09:00:00.000Z',
  entries: tape()
    .put('ticket', { set: { board: 'x', socketId: 'small' } })
    .put('photo', {
      file: sha256(picture),
      name: 'a.png',
      type: 'image/png',
      bytes: picture.length,
      caption: 'above',
    })
    .put('mark', { contacts: ['A1'], mark: { kind: 'low', heightMm: -0.12 } }).entries,
  socket,
  owner: { name: 'Ferry Office', contact: '' },
  files: [{ sha256: sha256(picture), type: 'image/png', purpose: 'photo', bytes: picture.length }],
  ...change,
})
const pack = (of: JobFile, extras?: Record<string, string>) =>
  buffer(packJob(of, () => Readable.from([Buffer.from(picture)]), extras))
/** The ZIP with some of its files exchanged; the manifest is made anew unless told otherwise. */
async function tampered(change: Record<string, Uint8Array | null>, honest = true): Promise<Buffer> {
  const parts: Record<string, Uint8Array> = unzipSync(await pack(job()))
  for (const [path, bytes] of Object.entries(change)) {
    if (bytes) parts[path] = bytes
    else delete parts[path]
  }
  if (honest) {
    const manifest = Object.entries(parts)
      .filter(([p]) => p !== 'manifest.json')
      .map(([path, b]) => ({ path, bytes: b.length, sha256: sha256(b) }))
    parts['manifest.json'] = strToU8(JSON.stringify(manifest))
  }
  return Buffer.from(zipSync(parts))
}
const faults = async (zip: Uint8Array) =>
  (await unpackJob(Buffer.from(zip))).findings.map((f) => `${f.path}: ${f.text}`)
const text = (value: unknown) => strToU8(JSON.stringify(value))

describe('a job’s ZIP', () => {
  it('is read back equal', async () => {
    expect(await unpackJob(await pack(job(), { 'map.svg': '<svg/>' }))).toEqual({
      job: job(),
      findings: [],
    })
    const bare = job({ socket: null, owner: null, files: [], entries: [] })
    expect((await unpackJob(await pack(bare))).job).toEqual(bare)
  })
  it('keeps a firmware image byte for byte', async () => {
    const image = Buffer.from([0x5a, 0, 0xff, 1, 2, 3])
    const file = { sha256: sha256(image), type: 'application/octet-stream', purpose: 'image', bytes: 6 }
    const entries = tape().put('image', {
      file: file.sha256,
      name: 'read.bin',
      bytes: 6,
      role: 'read',
      versions: [],
    }).entries
    const of = job({ entries, files: [file] })
    const zip = await buffer(packJob(of, () => Readable.from([image])))
    expect(await unpackJob(zip)).toEqual({ job: of, findings: [] })
    expect(Buffer.compare(unzipSync(zip)[`files/${file.sha256}.bin`]!, image)).toBe(0)
  })
  it('is read back equal whatever was marked and written', async () => {
    await fc.assert(
      fc.asyncProperty(
        anyMarks(socket),
        fc.string({ minLength: 1 }).filter((s) => s.trim() === s && s.length > 0),
        async (marks, note) => {
          const t = tape().put('note', { text: note })
          for (const [name, mark] of Object.entries(marks)) t.put('mark', { contacts: [name], mark })
          const whole = job({ entries: t.entries, files: [] })
          expect((await unpackJob(await pack(whole))).job).toEqual(whole)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('that is none, or was cut short, says so', async () => {
    expect(await faults(strToU8('hello'))).toEqual([
      ': this is not a ZIP, or it was cut short: fetch it again',
    ])
    expect((await faults((await pack(job())).subarray(0, 400)))[0]).toMatch(/cut short/)
  })
  it.each([
    [
      'a changed tape',
      tampered({ 'tape.json': text([]) }, false),
      /tape\.json: its content is not what the manifest says/,
    ],
    [
      'a missing picture',
      tampered({ [`files/${sha256(picture)}.png`]: null }),
      /job\.json names it but it is missing/,
    ],
    [
      'a picture exchanged for another',
      tampered({ [`files/${sha256(picture)}.png`]: strToU8('x') }),
      /does not have the hash it is named by/,
    ],
    ['a stranger', tampered({ 'run.sh': strToU8('x') }, false), /run\.sh: the manifest does not name it/],
    ['no manifest', tampered({ 'manifest.json': null }, false), /manifest\.json: it is missing from the ZIP/],
    ['another format', tampered({ 'job.json': text({ format: 'else' }) }), /job\.json: format: /],
    ['broken JSON', tampered({ 'tape.json': strToU8('[{') }), /tape\.json: it is not JSON/],
    [
      'a line that makes no sense',
      tampered({ 'tape.json': text([{ ...job().entries[0], body: { set: { minutesPromised: 'soon' } } }]) }),
      /tape\.json: line 1, set\.minutesPromised/,
    ],
    [
      'a tape with a gap',
      tampered({ 'tape.json': text([job().entries[0], job().entries[2]]) }),
      /line 2 is numbered 3/,
    ],
    [
      'a socket beyond all sense',
      tampered({ 'socket.json': text({ ...socket, pitchMm: -1 }) }),
      /socket\.json: pitchMm/,
    ],
  ])('with %s is refused with its place', async (_, zip, fault) => {
    expect((await faults(await zip)).join('\n')).toMatch(fault)
    expect((await unpackJob(await zip)).job).toBeNull()
  })
  it('never unfolds more than a job may hold', async () => {
    const bomb = zipSync({ 'tape.json': new Uint8Array(70 * 1024 * 1024) }, { level: 0 })
    expect(await faults(bomb)).toEqual(['tape.json: it unfolds to more than a job may hold'])
    // Half a megabyte that unfolds to hundreds: counted as it unfolds, whatever its parts are said to be.
    const small = zipSync({ 'files/x.png': new Uint8Array(120 * 1024 * 1024) }, { level: 9 })
    expect(small.length).toBeLessThan(1024 * 1024)
    expect(await faults(small)).toEqual(['files/x.png: it unfolds to more than a job may hold'])
    // One that says it is small is stopped where it goes on.
    const lying = Buffer.from(small)
    lying.writeUInt32LE(100, lying.lastIndexOf('PK\x01\x02', undefined, 'latin1') + 24)
    expect(await faults(lying)).toEqual([': this is not a ZIP, or it was cut short: fetch it again'])
    const many = zipSync(
      Object.fromEntries(Array.from({ length: 700 }, (_, i) => [`${i}.txt`, new Uint8Array(1)])),
    )
    expect(await faults(many)).toEqual([expect.stringMatching(/more than 600 parts/)])
  })
  it('of forty thousand lines is read and folded in a few seconds: a line costs the same on a long tape', async () => {
    const long = tape()
    for (let i = 0; i < 40_000; i++)
      switch (i % 10) {
        case 0:
          long.put('note', { text: `line ${i}` })
          break
        case 1:
          long.put('look', { what: `place ${i}`, seen: 'nothing', clear: true })
          break
        case 2:
          long.put('part', { ref: `R${i}`, did: 'found damaged' })
          break
        case 3:
          long.put('missing', { what: `piece ${i}`, from: 'bench' })
          break
        case 4:
          long.put('accounted', { item: `${i}/0`, where: 'in the dish' })
          break
        case 5:
          long.put('claim', { text: `claim ${i}` })
          break
        case 6:
          long.put('claim checked', { claim: i, verdict: 'holds', how: '' })
          break
        case 7:
          long.put('mark', { contacts: [`A${i % 900}`], mark: { kind: i % 20 === 7 ? 'snapped' : 'low' } })
          break
        case 8:
          long.put('part', { ref: `R${i % 30}`, did: i % 20 === 8 ? 'taken off' : 'fitted' })
          break
        default:
          long.put('left', { contact: `A${i % 900}`, why: 'redundant' })
      }
    const fold = (n: number) => {
      const began = performance.now()
      jobState(long.entries.slice(0, n))
      return performance.now() - began
    }
    fold(5000)
    // Linear would be eight times; copying what stands at every line would be sixty-four.
    const [short, whole] = [Math.min(fold(5000), fold(5000)), Math.min(fold(40_000), fold(40_000))]
    expect(whole / short).toBeLessThan(40)
    const back = await unpackJob(await pack(job({ entries: long.entries, files: [] })))
    expect(back.findings).toEqual([])
    expect(back.job?.entries).toHaveLength(40_000)
  })
  it('reads back for every tape that can be written', async () => {
    await fc.assert(
      fc.asyncProperty(anyTape(20), async (drawn) => {
        // What the server would let in, line after line.
        const entries: Entry[] = []
        for (const entry of drawn) {
          const next = { ...entry, seq: entries.length + 1 } as Entry
          if (
            !lineFault(
              next,
              (seq) => entries[seq - 1],
              () => false,
            )
          )
            entries.push(next)
        }
        const zip = await pack(job({ entries, files: [], socket: null }))
        expect(await unpackJob(zip)).toMatchObject({ findings: [], job: { entries } })
      }),
      { numRuns: 60 },
    )
  })
  it('reads back where what was pulled out is accounted for, and not with a photo line without its picture', async () => {
    const out = { contact: 'A1', how: 'transplant', holds: true, pulledOut: ['A2', 'A3'] } as const
    const entries = tape()
      .put('replaced', out)
      .put('accounted', { item: '1/1', where: 'in the dish' }).entries
    expect((await unpackJob(await pack(job({ entries, files: [] })))).findings).toEqual([])
    expect((await faults(await pack(job({ files: [] })))).join()).toMatch(/its picture is not with the job/)
  })
  it('lays its pictures in a folder, each named by its hash, and reads each when its turn comes', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'needle-zip-'))
    try {
      const zip = join(folder, 'job.zip')
      const read: string[] = []
      const whole = packJob(job(), ({ sha256: hash }) => {
        read.push(hash)
        return Readable.from([Buffer.from(picture)])
      })
      expect(read).toEqual([])
      await writeFile(zip, whole)
      expect(read).toEqual([sha256(picture)])
      expect((await unpackJob(zip, folder)).findings).toEqual([])
      expect((await readdir(folder)).sort()).toEqual([sha256(picture), 'job.zip'].sort())
      expect(await readFile(join(folder, sha256(picture)))).toEqual(Buffer.from(picture))
    } finally {
      await rm(folder, { recursive: true })
    }
  })
  it('breaks off when a picture cannot be read, so that half a job is never taken for one', async () => {
    const damaged = () =>
      Readable.from(
        (function* (): Generator<Buffer> {
          throw new Error('chunk 1 is damaged')
        })(),
      )
    await expect(buffer(packJob(job(), damaged))).rejects.toThrow(/damaged/)
  })
})
