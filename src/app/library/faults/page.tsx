import type { Metadata } from 'next'
import { ownFaultOdds } from '@/data/fault-odds'
import { signedIn } from '@/server/signed-in'
import { FaultSheet } from '@/shop/library/FaultSheet'
import { ShopFrame } from '@/shop/ShopFrame'

export const metadata: Metadata = { title: 'Faults' }

export default async function FaultsPage() {
  const account = await signedIn('/library/faults')
  return (
    <ShopFrame account={account} here="/library">
      <FaultSheet own={await ownFaultOdds()} />
    </ShopFrame>
  )
}
