import { randomUUID } from 'node:crypto'
import { expect, it, vi } from 'vitest'
import { readChip, releaseFile } from '@/simulated-bench/chip-on-board'
import { comparedLine } from '@/core/firmware/chip-on-tape.testing'
import { buildImage } from '@/core/firmware/image/build'
import { judgeSameCode } from '@/core/firmware/image/same-code'
import { evidenceOf } from '@/core/job/evidence'
import { describeDatabase, lay, somebody, someJob } from '@/data/database.testing'
import { askToStop, beginSession, lastSession, noteProgress } from '@/data/flash-sessions'
import { attachToJob, storeImage } from '@/data/files'
import { jobNow } from '@/data/job-now'
import type { Job } from '@/data/jobs'
import { transaction } from '@/data/pool'
import { readTape } from '@/data/read-tape'
import type { BenchFault } from '@/simulated-bench/bench-faults'
import { chipContents, runSession } from './flash'

vi.mock('./heavy', () => ({
  heavy: (_: string, __: string, { chip: asked, line }: { chip: typeof chip; line: number }) =>
    Promise.resolve(readChip(asked, line)),
}))
vi.mock('./advise', () => ({ adviseSoon: () => undefined }))

const chip = { boardModelId: 'tw-k74', faults: ['firmware corrupt' as const], seed: 413 }
const release = releaseFile('tw-k74', '1.40')!
const before = readChip(chip, 0)
const image = (() => {
  const built = buildImage(before, release)
  if (typeof built === 'string') throw new Error(built)
  return built.image
})()
const same = (a: Uint8Array, b: Uint8Array) => Buffer.compare(a, b) === 0

const keep = (job: Job, bytes: Uint8Array) =>
  transaction(async (db) => {
    const { sha256 } = await storeImage(db, bytes)
    await attachToJob(db, job.id, sha256, 'image')
    return sha256
  })

describeDatabase('a session at a simulated chip', () => {
  async function bench() {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'firmware', { chip: 'LSN-16V', chipVolts: 1.8, programmerVolts: 1.8, clipOn: true })
    const [was, file] = [await keep(job, before), await keep(job, release)]
    await lay(job, maren, 'compared', comparedLine(was, file, 'broken off'))
    const order = { image: await keep(job, image), release: file, despite: ['no photo'] }
    const run = async (
      of: { image?: string; release?: string | null },
      backup: string | null,
      fault: BenchFault,
    ) => {
      const session = { ...order, ...of, id: randomUUID(), backup }
      expect(await beginSession(job.id, 1, session)).toBe('begun')
      await runSession(job, maren, session, chip, fault)
      return (await lastSession(job.id, 0))!
    }
    const now = () => chipContents(job.id, maren.id, chip, 0)
    const written = async () => (await readTape(job.id)).filter((e) => e.kind === 'written')
    return { maren, job, order, run, now, written }
  }

  it('goes on after the supply went, stands on the tape once, and mends what was broken', async () => {
    const { job, run, now, written } = await bench()
    const first = await run({}, null, 'supply lost half-way')
    expect(first).toMatchObject({ ended: 'failed', stage: 'write' })
    expect(first.say).toContain('Go on from here')
    expect(await written()).toEqual([])
    const half = await now()
    expect(same(half, before)).toBe(false)
    expect(same(half, image)).toBe(false)
    const second = await run({}, first.backup, 'none')
    expect(second).toMatchObject({ ended: 'verified', backup: first.backup })
    const chipNow = await now()
    expect(judgeSameCode({ original: chipNow, second: chipNow, release }).verdict).toBe('same code')
    expect(await written()).toMatchObject([
      { id: second.id, body: { backup: first.backup, despite: ['no photo'] } },
    ])
    const { state } = await jobNow(job.id)
    expect(evidenceOf(state, null).mended).toEqual(['firmware corrupt'])
  })
  it('rolls back to what was there, and then nothing is mended', async () => {
    const { job, run, now } = await bench()
    const { backup } = await run({}, null, 'supply lost half-way')
    expect(await run({ image: backup!, release: null }, backup, 'none')).toMatchObject({ ended: 'verified' })
    expect(same(await now(), before)).toBe(true)
    expect(evidenceOf((await jobNow(job.id)).state, null).mended).toEqual([])
  })
  it.each<BenchFault>(['stuck line', 'write protected', 'loose clip'])(
    'with a %s nothing is erased',
    async (fault) => {
      const { run, now, written } = await bench()
      expect(await run({}, null, fault)).toMatchObject({ ended: 'refused', backup: null })
      expect(same(await now(), before)).toBe(true)
      expect(await written()).toEqual([])
    },
  )
  it('runs once at a time on a job; the same order again begins nothing', async () => {
    const { job, order } = await bench()
    const session = { ...order, id: randomUUID(), backup: null }
    expect(await beginSession(job.id, 1, session)).toBe('begun')
    expect(await beginSession(job.id, 1, session)).toBe('known')
    expect(await beginSession(job.id, 1, { ...session, id: randomUUID() })).toBe('another runs')
    await askToStop(job.id)
    expect(await noteProgress(session.id, 'read', 0.5)).toBe(true)
  })
})

describeDatabase('a session that was given up for gone', (owner) => {
  it('does not begin when its turn comes: another may be at the chip', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'firmware', { chip: 'LSN-16V', chipVolts: 1.8, programmerVolts: 1.8, clipOn: true })
    const session = {
      id: randomUUID(),
      image: await keep(job, image),
      release: null,
      despite: [],
      backup: null,
    }
    await beginSession(job.id, 1, session)
    await owner().query(`update flash_session set seen_at = now() - interval '1 minute' where job_id = $1`, [
      job.id,
    ])
    expect(await lastSession(job.id, 0)).toMatchObject({ ended: 'stopped' })
    await runSession(job, maren, session, chip, 'none')
    expect(await lastSession(job.id, 0)).toMatchObject({ ended: 'stopped', backup: null })
    expect(same(await chipContents(job.id, maren.id, chip, 0), before)).toBe(true)
  })
  it('of a chip that was exchanged since is not known any more', async () => {
    const job = await someJob(await somebody('Maren'))
    await beginSession(job.id, 4, {
      id: randomUUID(),
      image: 'ab'.repeat(32),
      release: null,
      despite: [],
      backup: null,
    })
    expect(await lastSession(job.id, 4)).not.toBeNull()
    expect(await lastSession(job.id, 5)).toBeNull()
  })
})

describeDatabase('a session whose server has gone', (owner) => {
  it('is ended when somebody asks, and says how to go on', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const hash = 'ab'.repeat(32)
    await beginSession(job.id, 1, {
      id: randomUUID(),
      image: hash,
      release: null,
      despite: [],
      backup: hash,
    })
    expect(await lastSession(job.id, 0)).toMatchObject({ ended: null })
    await owner().query(`update flash_session set seen_at = now() - interval '1 minute' where job_id = $1`, [
      job.id,
    ])
    expect(await lastSession(job.id, 0)).toMatchObject({ ended: 'stopped', backup: hash })
  })
})
