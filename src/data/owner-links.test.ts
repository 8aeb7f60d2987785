import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import { describeDatabase, somebody, someJob } from './database.testing'
import { eraseCustomer, saveCustomer } from './jobs'
import { makeOwnerLink, openedBy, ownerLinksOf, revokeOwnerLink } from './owner-links'

describeDatabase('a link for the owner', (owner) => {
  it('opens its one job, and stands nowhere: only its hash is kept', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    const token = (await makeOwnerLink(randomUUID(), job.id, who, 30))!
    expect(token).toMatch(/^[\w-]{43}$/)
    expect(await openedBy(token)).toEqual({ jobId: job.id, by: who })
    const { rows } = await owner().query('select t::text as row from owner_link t')
    expect(JSON.stringify(rows)).not.toContain(token)
    expect(await ownerLinksOf(job.id)).toHaveLength(1)
  })
  it('opens nothing when it is not whole, made up, closed or has run out', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    const id = randomUUID()
    const token = (await makeOwnerLink(id, job.id, who, 30))!
    const other = `${token.startsWith('A') ? 'B' : 'A'}${token.slice(1)}`
    for (const wrong of ['', token.slice(1), `${token}A`, other, "' or 1=1 --"])
      expect(await openedBy(wrong)).toBeNull()
    await revokeOwnerLink((await someJob(who)).id, id)
    expect(await openedBy(token)).not.toBeNull()
    await revokeOwnerLink(job.id, id)
    expect(await openedBy(token)).toBeNull()
    expect(await ownerLinksOf(job.id)).toEqual([])
    // Closed, it is not opened again by its name.
    expect(await makeOwnerLink(id, job.id, who, 30)).toBeNull()
    const late = (await makeOwnerLink(randomUUID(), job.id, who, 30))!
    await owner().query("update owner_link set expires_at = now() - interval '1 second'")
    expect(await openedBy(late)).toBeNull()
  })
  it('made twice with one id is one link: the later one', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    const id = randomUUID()
    const first = (await makeOwnerLink(id, job.id, who, 30))!
    const second = (await makeOwnerLink(id, job.id, who, 30))!
    expect(await openedBy(first)).toBeNull()
    expect(await openedBy(second)).not.toBeNull()
    expect(await makeOwnerLink(id, (await someJob(who)).id, who, 30)).toBeNull()
  })
  it('is closed when the owner is erased, and none is made any more', async () => {
    const who = await somebody('Ines')
    const job = await someJob(who)
    await saveCustomer(job.id, 'Somebody', 'the quay')
    const token = (await makeOwnerLink(randomUUID(), job.id, who, 30))!
    await eraseCustomer(job.id)
    expect(await openedBy(token)).toBeNull()
    expect(await makeOwnerLink(randomUUID(), job.id, who, 30)).toBeNull()
  })
})
