import type { Metadata } from 'next'
import { ownFigures } from '@/data/bench-figures'
import { signedIn } from '@/server/signed-in'
import { BenchSheet } from '@/shop/library/BenchSheet'
import { ShopFrame } from '@/shop/ShopFrame'

export const metadata: Metadata = { title: 'What the bench reckons with' }

export default async function BenchPage() {
  const account = await signedIn('/library/bench')
  return (
    <ShopFrame account={account} here="/library">
      <BenchSheet own={await ownFigures()} />
    </ShopFrame>
  )
}
