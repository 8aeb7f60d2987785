import type { Metadata } from 'next'
import { ownFaultOdds } from '@/data/fault-odds'
import { signedIn } from '@/stations/job/signed-in'
import { FaultSheet } from '@/stations/library/FaultSheet'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Faults' }

export default async function FaultsPage() {
  const account = await signedIn('/library/faults')
  return (
    <ShopFrame account={account} here="/library">
      <FaultSheet own={await ownFaultOdds()} />
    </ShopFrame>
  )
}
