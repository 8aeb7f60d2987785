import Ajv from 'ajv/dist/2019'
import formats from 'ajv-formats'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyTape } from '@/core/job/any-tape.testing'
import { demoSockets } from '../../demo/sockets'
import { unpackJob } from './job-zip'
import { jobZipSchema } from './job-zip-schema'

const ajv = new Ajv({ strict: false })
formats(ajv)
const holds = ajv.compile(jobZipSchema() as object)
const sha = 'ab'.repeat(32)
const job = {
  'job.json': {
    format: 'arch-needle job',
    v: 1,
    tag: 'Q-0001',
    exportedAt: '2026-11-24T09:00:00.000Z',
    pictures: [],
  },
  'manifest.json': [{ path: 'tape.json', bytes: 3, sha256: sha }],
  'tape.json': [] as unknown[],
}

describe('the schema of a job’s ZIP', () => {
  it('holds of whatever a tape can be, and of a socket', () => {
    fc.assert(
      fc.property(anyTape(), (entries) => {
        const fits = holds({ ...job, 'tape.json': JSON.parse(JSON.stringify(entries)) as unknown[] })
        expect(holds.errors?.find((e) => e.keyword !== 'oneOf' && e.keyword !== 'const') ?? null).toBeNull()
        expect(fits).toBe(true)
      }),
      { numRuns: 60 },
    )
    expect(holds({ ...job, 'socket.json': JSON.parse(JSON.stringify(demoSockets.lg1284)) as unknown })).toBe(
      true,
    )
  })
  it.each([
    [
      'a kind nobody knows',
      { 'tape.json': [{ ...line('rail', { rail: '12v', ohms: 480, cpu: 'out' }), kind: 'cabbage' }] },
    ],
    [
      'a reading that is no figure',
      { 'tape.json': [line('rail', { rail: '12v', ohms: 'many', cpu: 'out' })] },
    ],
    ['a field nobody knows', { 'tape.json': [line('cell', { volts: 3, colour: 'red' })] }],
    ['no manifest', { 'manifest.json': undefined }],
    ['another format', { 'job.json': { ...job['job.json'], format: 'else' } }],
  ])('does not hold of %s', (_, wrong) => {
    expect(holds(JSON.parse(JSON.stringify({ ...job, ...wrong })))).toBe(false)
  })
  it('of one that was given away long ago, the ZIP is read all the same', async () => {
    const { job: read, findings } = await unpackJob('docs/examples/tide-gauge.zip')
    expect(findings).toEqual([])
    expect(read!.entries.length).toBeGreaterThan(20)
  })
})

function line(kind: string, body: object) {
  const id = '00000000-0000-4000-8000-000000000001'
  return { id, seq: 1, at: '2026-11-24T09:00:00.000Z', by: 'Ines', kind, v: 1, body, strikes: null }
}
