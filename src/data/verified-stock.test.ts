import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import { describeDatabase, somebody, someJob } from './database.testing'
import { appendEntry } from './tape'
import type { Job } from './jobs'
import { verifiedStock } from './verified-stock'
import type { Account } from './accounts'
import type { HandBackBodies } from '@/core/hand-back/bodies'

describeDatabase('verified stock', () => {
  const put = async (job: Job, who: Account, basis: number, kind: 'consent' | 'hand-back', body: object) => {
    const done = await appendEntry(job.id, who, {
      id: randomUUID(),
      kind,
      strikes: null,
      at: new Date().toISOString(),
      basis,
      body: body as never,
    })
    expect(done).toMatchObject({ result: 'saved' })
  }
  const body = { outcome: 'exchanged', priceMinor: null, text: '' } as const
  const handBack = async (job: Job, who: Account, change: Partial<HandBackBodies['hand-back']>) => {
    await put(job, who, 0, 'consent', { risks: [], limitMinor: null, signature: null, how: 'by telephone' })
    await put(job, who, 1, 'hand-back', { ...body, ...change })
  }
  /** It was asked about, and kept all the same: whether it is proved is told by its tape whenever it is wanted. */
  const unproved = { despite: ['not proved: cold starts'] }
  const tags = async () => (await verifiedStock()).map((k) => k.tag)

  it('is what was kept as that, until it is in another machine, or the line that kept it is struck', async () => {
    const who = await somebody('Ines')
    const [kept, waste, other] = [await someJob(who), await someJob(who), await someJob(who)]
    await handBack(kept, who, { ...unproved, outcome: 'fixed', fate: 'verified stock' })
    await handBack(waste, who, { fate: 'waste' })
    expect(await tags()).toContain(kept.tag)
    expect(await tags()).not.toContain(waste.tag)
    await put(waste, who, 2, 'hand-back', { ...body, ...unproved, fate: 'verified stock' })
    expect(await tags()).toContain(waste.tag)
    await put(waste, who, 3, 'hand-back', { ...body, fate: 'waste' })
    expect(await tags()).not.toContain(waste.tag)
    await handBack(other, who, { exchangedFor: kept.tag })
    expect(await tags()).not.toContain(kept.tag)
    await appendEntry(other.id, who, {
      id: randomUUID(),
      kind: 'strike',
      strikes: 2,
      at: new Date().toISOString(),
      basis: 2,
      body: { why: 'the owner wants it not' },
    })
    expect(await tags()).toContain(kept.tag)
  })
})
