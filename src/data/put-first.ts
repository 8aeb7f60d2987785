import 'server-only'
import { keepShopSetting, shopSetting } from './shop-setting'

/** Jobs that somebody has put first on the bench, in their order; those that are off the bench meanwhile may be among them. */
export async function putFirst(): Promise<readonly string[]> {
  const kept = await shopSetting('put first')
  return kept === null ? [] : (JSON.parse(kept) as string[])
}

export const keepPutFirst = (ids: readonly string[]): Promise<void> =>
  keepShopSetting('put first', JSON.stringify(ids))
