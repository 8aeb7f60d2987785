import 'server-only'
import { usualReader } from '@/core/reader'
import { pool } from './pool'

/** The word that stands behind the shop's amounts. */
export async function shopCurrency(): Promise<string> {
  const { rows } = await pool().query<{ value: string }>(
    "select value from shop_setting where name = 'currency'",
  )
  return rows[0]?.value ?? usualReader.currency
}

export async function keepCurrency(currency: string): Promise<void> {
  await pool().query(
    "insert into shop_setting (name, value) values ('currency', $1) on conflict (name) do update set value = $1",
    [currency],
  )
}
