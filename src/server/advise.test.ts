import { expect, it } from 'vitest'
import { reckonAdvice } from '@/core/job/advise'
import { describeDatabase, lay, someJob, somebody } from '@/data/database.testing'
import { jobById, saveNextStep } from '@/data/jobs'
import { adviseJob } from './advise'

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
    await saveNextStep(job.id, 5, { station: 'triage', say: 'Later.', why: 'x' })
    await saveNextStep(job.id, 4, { station: 'intake', say: 'Earlier.', why: 'x' })
    expect((await jobById(job.id))!.nextStep).toMatchObject({ seq: 5, say: 'Later.' })
  })
})
