import { expect, it } from 'vitest'
import { reckonAdvice } from '@/core/job/advise'
import { describeDatabase, lay, someJob, somebody } from '@/data/database.testing'
import { keepFigures } from '@/data/bench-figures'
import { keepFaultOdds } from '@/data/fault-odds'
import { jobById, saveNextStep } from '@/data/jobs'
import { pool } from '@/data/pool'
import { dropReference } from '@/data/references'
import { putOnShelf } from '@/data/shelf'
import { settingOfJob } from '@/data/advice-setting'
import { jobNow } from '@/data/job-now'
import { adviceKept, adviseJob } from './advise'

const reckon = ({ field, asked }: Parameters<Parameters<typeof adviseJob>[1]>[0]) =>
  Promise.resolve(reckonAdvice(field, asked))

describeDatabase('what to do next, off the request', () => {
  it('is kept with the line of the tape it was computed at, and known to be older after another', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    expect((await jobById(job.id))!.nextStep).toBeNull()
    await adviseJob(job.id, reckon)
    expect((await jobById(job.id))!.nextStep).toMatchObject({
      seq: 0,
      station: 'intake',
      say: 'Say which board this is.',
    })
    await lay(job, maren, 'ticket', { set: { board: 'TW-K61' } })
    const after = (await jobById(job.id))!
    expect(after.seq).toBe(1)
    expect(after.nextStep!.seq).toBe(0)
    await adviseJob(job.id, reckon)
    expect((await jobById(job.id))!.nextStep).toMatchObject({
      seq: 1,
      say: 'Write down what the owner says is wrong, in their words.',
    })
  })
  it('is not overwritten by what was computed at an earlier line', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await saveNextStep(job.id, { seq: 5, settings: 0, station: 'triage', say: 'Later.', why: 'x' })
    await saveNextStep(job.id, { seq: 4, settings: 0, station: 'intake', say: 'Earlier.', why: 'x' })
    expect((await jobById(job.id))!.nextStep).toMatchObject({ seq: 5, say: 'Later.' })
  })
  it('is not given to a page that would ask something else: what came of the repairs of other jobs bears on it', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const test = { test: 'ohms vmem', outcome: 'short' }
    await lay(job, maren, 'ticket', { set: { board: 'TW-K61' } })
    await lay(job, maren, 'mended', { fault: 'memory rail short' })
    await lay(job, maren, 'trial', test)
    const kept = async () => {
      const { state, socket } = await jobNow(job.id)
      const setting = await settingOfJob(job.id)
      return adviceKept(job.id, state, socket, setting)
    }
    expect(await kept()).toBeNull()
    await adviseJob(job.id, reckon)
    const before = await kept()
    expect(before).toMatchObject({ nextStep: { seq: 3 }, belief: { causes: expect.anything() } })
    const other = await someJob(maren)
    await lay(other, maren, 'mended', { fault: 'memory rail short' })
    await pool().query("update job set closed_at = now(), outcome = 'fixed' where id = $1", [other.id])
    expect((await jobById(job.id))!.stepIsOlder).toBe(false)
    expect(await kept()).toBeNull()
    await adviseJob(job.id, reckon)
    expect((await kept())!.belief).not.toEqual(before!.belief)
  })
  it.each([
    ['the shelf', () => putOnShelf('scope', true)],
    ['the odds', () => keepFaultOdds({})],
    ['the figures', () => keepFigures({})],
    ['a reference', () => dropReference('no-such', 'codes')],
  ])('is older once %s is changed, also where the change falls into its computing', async (_, change) => {
    const job = await someJob(await somebody('Maren'))
    const isOlder = async () => (await jobById(job.id))!.stepIsOlder
    expect(await isOlder()).toBe(true)
    await adviseJob(job.id, reckon)
    expect(await isOlder()).toBe(false)
    await change()
    expect(await isOlder()).toBe(true)
    // A first step, and one over a step that was older already: both were computed from what stood before.
    for (const about of [job, await someJob(await somebody('Ines'))]) {
      await adviseJob(about.id, async (asked) => {
        await change()
        return reckon(asked)
      })
      expect((await jobById(about.id))!.stepIsOlder).toBe(true)
      await adviseJob(about.id, reckon)
      expect((await jobById(about.id))!.stepIsOlder).toBe(false)
    }
  })
})
