import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import { describeDatabase, somebody, someJob } from './database.testing'
import { eraseCustomer, saveCustomer } from './jobs'
import { linksOf, makeLink, openedForOpinion, openedForOwner, revokeLink } from './job-links'

describeDatabase('a link to a job', (owner) => {
  it('opens its one job, and stands nowhere: only its hash is kept', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    const token = (await makeLink(randomUUID(), job.id, who, 30, null))!
    expect(token).toMatch(/^[\w-]{43}$/)
    expect(await openedForOwner(token)).toEqual({ jobId: job.id, by: who })
    const { rows } = await owner().query('select t::text as row from job_link t')
    expect(JSON.stringify(rows)).not.toContain(token)
    expect(await linksOf(job.id, null)).toHaveLength(1)
  })
  it('opens nothing when it is not whole, made up, closed or has run out', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    const id = randomUUID()
    const token = (await makeLink(id, job.id, who, 30, null))!
    const other = `${token.startsWith('A') ? 'B' : 'A'}${token.slice(1)}`
    for (const wrong of ['', token.slice(1), `${token}A`, other, "' or 1=1 --"])
      expect(await openedForOwner(wrong)).toBeNull()
    await revokeLink((await someJob(who)).id, id)
    expect(await openedForOwner(token)).not.toBeNull()
    await revokeLink(job.id, id)
    expect(await openedForOwner(token)).toBeNull()
    expect(await linksOf(job.id, null)).toEqual([])
    // Closed, it is not opened again by its name.
    expect(await makeLink(id, job.id, who, 30, null)).toBeNull()
    const late = (await makeLink(randomUUID(), job.id, who, 30, null))!
    await owner().query("update job_link set expires_at = now() - interval '1 second'")
    expect(await openedForOwner(late)).toBeNull()
  })
  it('made twice with one id is one link: the later one', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    const id = randomUUID()
    const first = (await makeLink(id, job.id, who, 30, null))!
    const second = (await makeLink(id, job.id, who, 30, null))!
    expect(await openedForOwner(first)).toBeNull()
    expect(await openedForOwner(second)).not.toBeNull()
    expect(await makeLink(id, (await someJob(who)).id, who, 30, null)).toBeNull()
  })
  it('is closed when the owner is erased, and none is made any more', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    await saveCustomer(job.id, 'Somebody', 'the quay')
    const token = (await makeLink(randomUUID(), job.id, who, 30, null))!
    await eraseCustomer(job.id)
    expect(await openedForOwner(token)).toBeNull()
    expect(await makeLink(randomUUID(), job.id, who, 30, null)).toBeNull()
  })
  it('of a question opens that question, and nothing to an owner; an owner’s opens no question', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    const [forOwner, forOpinion] = [
      (await makeLink(randomUUID(), job.id, who, 30, null))!,
      (await makeLink(randomUUID(), job.id, who, 30, 7))!,
    ]
    expect(await openedForOpinion(forOpinion)).toEqual({ jobId: job.id, by: who, asked: 7 })
    expect(await openedForOwner(forOpinion)).toBeNull()
    expect(await openedForOpinion(forOwner)).toBeNull()
    const [link] = await linksOf(job.id, 7)
    expect(await linksOf(job.id, 8)).toEqual([])
    // Made again, it does not become a link of another sort.
    expect(await makeLink(link!.id, job.id, who, 30, null)).toBeNull()
    expect(await openedForOwner(forOpinion)).toBeNull()
  })
})
