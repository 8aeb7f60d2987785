import 'server-only'
import { pool } from './pool'
import { shopSetting } from './shop-setting'

const NAME = 'put first'

/** Jobs that somebody has put first on the bench, in their order; those that are off the bench meanwhile may be among them. */
export async function putFirst(): Promise<readonly string[]> {
  const kept = await shopSetting(NAME)
  return kept === null ? [] : (JSON.parse(kept) as string[])
}

/** Keeps an order that was made out of the one seen; false, and nothing kept, where somebody else has made another since. */
export async function keepPutFirst(ids: readonly string[], seen: readonly string[]): Promise<boolean> {
  const { rowCount } = await pool().query(
    `insert into shop_setting (name, value) values ($1, $2)
     on conflict (name) do update set value = $2 where shop_setting.value = $3`,
    [NAME, JSON.stringify(ids), JSON.stringify(seen)],
  )
  return rowCount === 1
}
