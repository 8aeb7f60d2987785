import { expect, it } from 'vitest'
import type { Bodies, Kind } from '@/core/slices'
import { describeDatabase, lay, line, somebody, someJob } from './database.testing'
import { jobRecords, learnedNow } from './job-records'
import { readTape } from './read-tape'
import { appendEntry } from './tape'

const fixed = { outcome: 'fixed', priceMinor: null, text: '' } as const

describeDatabase('what finished jobs leave for the record', (owner) => {
  it('is there with the line that ends the job, gone when that is struck, and made up for where it is missing', async () => {
    const who = await somebody('Maren')
    const job = await someJob(who)
    const write = <K extends Kind>(kind: K, body: Bodies[K]) => lay(job, who, kind, body)
    const kept = async () => (await jobRecords(100)).find((r) => r.tag === job.tag)
    await write('claim', { text: 'it ran' })
    await write('claim weighed', {
      claim: 1,
      test: 'cell',
      outcome: 'low',
      reliability: 0.5,
      knows: 'saw it',
    })
    await write('claim checked', { claim: 1, verdict: 'wrong', how: 'seen' })
    expect(await kept()).toBeUndefined()
    await write('consent', { risks: [], limitMinor: null, signature: null, how: 'on paper' })
    const before = (await learnedNow()).claims['saw it']?.checked ?? 0
    await write('hand-back', { ...fixed, outcome: 'returned unrepaired' })
    const { rowCount } = await owner().query('select 1 from job_record where job_id = $1', [job.id])
    expect(rowCount).toBe(1)
    expect((await kept())?.odds).toMatchObject([{ of: 'claims', kind: 'saw it', came: false }])
    expect((await learnedNow()).claims['saw it']!.checked).toBe(before + 1)

    await owner().query('delete from job_record')
    expect((await kept())?.odds).toHaveLength(1)
    await owner().query('update job_record set shape = 0')
    expect((await kept())?.odds).toHaveLength(1)

    const last = (await readTape(job.id)).at(-1)!.seq
    await appendEntry(job.id, who, line('strike', { why: 'not yet' }, last, last))
    expect(await kept()).toBeUndefined()
    const { rows } = await owner().query('select 1 from job_record where job_id = $1', [job.id])
    expect(rows).toEqual([])
  })
})
