import 'server-only'
import { eraseCustomer } from './jobs'
import { pool } from './pool'
import { keepShopSetting, shopSetting } from './shop-setting'

/** Months after the hand-back that owners’ names are kept; null while they are kept until somebody erases them. */
export async function monthsKept(): Promise<number | null> {
  const kept = await shopSetting('months owners are kept')
  return kept === null || kept === '' ? null : Number(kept)
}

export const keepMonthsKept = (months: number | null): Promise<void> =>
  keepShopSetting('months owners are kept', months === null ? '' : String(months))

/** Jobs whose owner has had every board back for longer than that, and is not erased. */
async function jobsDue(months: number, now: string): Promise<readonly string[]> {
  const { rows } = await pool().query<{ id: string }>(
    `select j.id from job j join customer c on c.id = j.customer_id
     where c.erased_at is null and j.closed_at is not null
       and not exists (
         select 1 from job o where o.customer_id = c.id
           and (o.closed_at is null or o.closed_at > $2::timestamptz - make_interval(months => $1)))`,
    [months, now],
  )
  return rows.map((r) => r.id)
}

/** How many jobs have an owner who would be erased now, were names kept for so many months. */
export const countDue = async (months: number, now: string): Promise<number> =>
  (await jobsDue(months, now)).length

/**
 * Erases every owner whose last board went back longer ago than names are kept here; the technical record stays.
 * @returns jobs whose owner is gone
 */
export async function eraseDue(now: string): Promise<number> {
  const months = await monthsKept()
  if (months === null) return 0
  const due = await jobsDue(months, now)
  for (const id of due) await eraseCustomer(id)
  return due.length
}
