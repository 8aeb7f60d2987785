import 'server-only'
import { pool } from './pool'

/** What the shop has settled under this name; null until it has. */
export async function shopSetting(name: string): Promise<string | null> {
  const { rows } = await pool().query<{ value: string }>('select value from shop_setting where name = $1', [
    name,
  ])
  return rows[0]?.value ?? null
}

export async function keepShopSetting(name: string, value: string): Promise<void> {
  await pool().query(
    'insert into shop_setting (name, value) values ($1, $2) on conflict (name) do update set value = $2',
    [name, value],
  )
}
