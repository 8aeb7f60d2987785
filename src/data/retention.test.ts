import { expect, it } from 'vitest'
import type pg from 'pg'
import { describeDatabase, somebody, someJob } from './database.testing'
import { customerOf, jobByTag, saveCustomer } from './jobs'
import { countDue, eraseDue, keepMonthsKept, monthsKept } from './retention'

const now = '2026-11-28T09:00:00.000Z'

/** A job of an owner, handed back at a moment or still open. */
async function jobOf(db: pg.Client, name: string, closedAt: string | null, customerId: string | null = null) {
  const job = await someJob(await somebody('Maren'))
  await saveCustomer(job.id, name, 'quay 2')
  if (customerId) await db.query('update job set customer_id = $2 where id = $1', [job.id, customerId])
  await db.query('update job set closed_at = $2 where id = $1', [job.id, closedAt])
  return (await jobByTag(job.tag))!
}
const nameOf = async ({ customerId }: { customerId: string | null }) => (await customerOf(customerId))!.name

describeDatabase('owners', (owner) => {
  it('are kept until erased while nobody has said for how long', async () => {
    const old = await jobOf(owner(), 'Old Mill', '2020-01-01T00:00:00Z')
    expect(await monthsKept()).toBeNull()
    expect(await eraseDue(now)).toBe(0)
    expect(await nameOf(old)).toBe('Old Mill')
    expect(await countDue(24, now)).toBe(1)
    await owner().query('update customer set erased_at = now() where id = $1', [old.customerId])
  })
  it('go once every board of theirs has been back for longer than that, to the day, and only once', async () => {
    await keepMonthsKept(12)
    const before = await jobOf(owner(), 'Before', '2025-11-28T08:59:00Z')
    const after = await jobOf(owner(), 'After', '2025-11-28T09:01:00Z')
    const two = await jobOf(owner(), 'Two Boards', '2024-01-01T00:00:00Z')
    await jobOf(owner(), 'Two Boards', null, two.customerId)
    const open = await jobOf(owner(), 'Open', null)
    expect(await eraseDue(now)).toBe(1)
    expect(await nameOf(before)).toBe('')
    for (const [job, name] of [
      [after, 'After'],
      [two, 'Two Boards'],
      [open, 'Open'],
    ] as const)
      expect(await nameOf(job)).toBe(name)
    expect(await eraseDue(now)).toBe(0)
    await keepMonthsKept(null)
    expect(await monthsKept()).toBeNull()
  })
})
