import { createHash } from 'node:crypto'
import fc from 'fast-check'
import { strToU8, unzipSync, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { tape } from '@/core/job/tape.testing'
import { anyMarks, smallField } from '@/core/socket/field.testing'
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
  })
})
