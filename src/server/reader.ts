import 'server-only'
import { cookies, headers } from 'next/headers'
import { localeOf, usualReader, zoneOf } from '@/core/reader'
import type { Reader } from '@/core/reader'
import { shopCurrency } from '@/data/shop-currency'

/** A page is not held up for the word behind its amounts; several servers learn of another one within this time, ms. */
const KEPT_MS = 30_000
const held = globalThis as { needleCurrency?: { readonly word: string; readonly until: number } }

/** The currency as last known, also while the database does not answer. */
async function currency(): Promise<string> {
  const known = held.needleCurrency
  if (known && known.until > Date.now()) return known.word
  const word = await shopCurrency().catch(() => known?.word ?? usualReader.currency)
  held.needleCurrency = { word, until: Date.now() + KEPT_MS }
  return word
}

export const forgetCurrency = (): void => {
  delete held.needleCurrency
}

/** For whom this request is answered. */
export async function readerOf(): Promise<Reader> {
  const [jar, heads, word] = [await cookies(), await headers(), await currency()]
  return {
    locale: localeOf(heads.get('accept-language')),
    zone: zoneOf(jar.get('zone')?.value),
    currency: word,
  }
}
