import 'server-only'
import { usualReader } from '@/core/reader'
import { keepShopSetting, shopSetting } from './shop-setting'

/** The word that stands behind the shop's amounts. */
export const shopCurrency = async (): Promise<string> =>
  (await shopSetting('currency')) ?? usualReader.currency

export const keepCurrency = (currency: string): Promise<void> => keepShopSetting('currency', currency)
