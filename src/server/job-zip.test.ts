import { lineFault, jobState } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import { createHash } from 'node:crypto'
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
  files: [{ sha256: sha256(picture), type: 'image/png', purpose: 'photo', bytes: picture }],
  ...change,
})
/** The ZIP with some of its files exchanged; the manifest is made anew unless told otherwise. */
function tampered(change: Record<string, Uint8Array | null>, honest = true): Uint8Array {
  const parts: Record<string, Uint8Array> = unzipSync(packJob(job(), sha256))
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
  return zipSync(parts)
}
const faults = (zip: Uint8Array) => unpackJob(zip, sha256).findings.map((f) => `${f.path}: ${f.text}`)
const text = (value: unknown) => strToU8(JSON.stringify(value))

describe('a job’s ZIP', () => {
  it('is read back equal', () => {
    expect(unpackJob(packJob(job(), sha256, { 'map.svg': strToU8('<svg/>') }), sha256)).toEqual({
      job: job(),
      findings: [],
    })
    const bare = job({ socket: null, owner: null, files: [], entries: [] })
    expect(unpackJob(packJob(bare, sha256), sha256).job).toEqual(bare)
  })
  it('is read back equal whatever was marked and written', () => {
    fc.assert(
      fc.property(
        anyMarks(socket),
        fc.string({ minLength: 1 }).filter((s) => s.trim() === s && s.length > 0),
        (marks, note) => {
          const t = tape().put('note', { text: note })
          for (const [name, mark] of Object.entries(marks)) t.put('mark', { contacts: [name], mark })
          const whole = job({ entries: t.entries, files: [] })
          expect(unpackJob(packJob(whole, sha256), sha256).job).toEqual(whole)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('that is none, or was cut short, says so', () => {
    expect(faults(strToU8('hello'))).toEqual([': this is not a ZIP, or it was cut short: fetch it again'])
    expect(faults(packJob(job(), sha256).subarray(0, 400))[0]).toMatch(/cut short/)
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
  ])('with %s is refused with its place', (_, zip, fault) => {
    expect(faults(zip).join('\n')).toMatch(fault)
    expect(unpackJob(zip, sha256).job).toBeNull()
  })
  it('never unfolds more than a job may hold', () => {
    const bomb = zipSync({ 'tape.json': new Uint8Array(70 * 1024 * 1024) }, { level: 0 })
    expect(faults(bomb)).toEqual(['tape.json: it unfolds to more than a job may hold'])
    // Half a megabyte that unfolds to hundreds: counted as it unfolds, whatever its parts are said to be.
    const small = zipSync({ 'files/x.png': new Uint8Array(120 * 1024 * 1024) }, { level: 9 })
    expect(small.length).toBeLessThan(1024 * 1024)
    expect(faults(small)).toEqual(['files/x.png: it unfolds to more than a job may hold'])
    const many = zipSync(
      Object.fromEntries(Array.from({ length: 700 }, (_, i) => [`${i}.txt`, new Uint8Array(1)])),
    )
    expect(faults(many)).toEqual([expect.stringMatching(/more than 600 parts/)])
  })
  it('of forty thousand lines is read and folded in a few seconds: a line costs the same on a long tape', () => {
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
    const back = unpackJob(packJob(job({ entries: long.entries, files: [] }), sha256), sha256)
    expect(back.findings).toEqual([])
    expect(back.job?.entries).toHaveLength(40_000)
  })
  it('reads back for every tape that can be written', () => {
    fc.assert(
      fc.property(anyTape(20), (drawn) => {
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
        const zip = packJob(job({ entries, files: [], socket: null }), sha256)
        expect(unpackJob(zip, sha256)).toMatchObject({ findings: [], job: { entries } })
      }),
      { numRuns: 60 },
    )
  })
  it('reads back where what was pulled out is accounted for, and not with a photo line without its picture', () => {
    const out = { contact: 'A1', how: 'transplant', holds: true, pulledOut: ['A2', 'A3'] } as const
    const entries = tape()
      .put('replaced', out)
      .put('accounted', { item: '1/1', where: 'in the dish' }).entries
    expect(unpackJob(packJob(job({ entries, files: [] }), sha256), sha256).findings).toEqual([])
    expect(faults(packJob(job({ files: [] }), sha256)).join()).toMatch(/its picture is not with the job/)
  })
})
