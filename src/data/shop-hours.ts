import 'server-only'
import { usualHours } from '@/core/shop/promise'
import type { Hours } from '@/core/shop/promise'
import { keepShopSetting, shopSetting } from './shop-setting'

/** When the bench is worked; the bench default until the shop has said its own. */
export async function shopHours(): Promise<Hours> {
  const kept = await shopSetting('hours')
  return kept === null ? usualHours : (JSON.parse(kept) as Hours)
}

export const keepShopHours = (hours: Hours): Promise<void> => keepShopSetting('hours', JSON.stringify(hours))
