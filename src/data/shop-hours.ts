import 'server-only'
import { usualHours } from '@/core/shop/promise'
import type { Hours } from '@/core/shop/promise'
import { pool } from './pool'

/** When the bench is worked; the bench default until the shop has said its own. */
export async function shopHours(): Promise<Hours> {
  const { rows } = await pool().query<{ value: string }>(
    "select value from shop_setting where name = 'hours'",
  )
  return rows[0] ? (JSON.parse(rows[0].value) as Hours) : usualHours
}

export async function keepShopHours(hours: Hours): Promise<void> {
  await pool().query(
    "insert into shop_setting (name, value) values ('hours', $1) on conflict (name) do update set value = $1",
    [JSON.stringify(hours)],
  )
}
