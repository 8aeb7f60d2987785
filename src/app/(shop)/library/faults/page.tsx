import type { Metadata } from 'next'
import { ownFaultOdds } from '@/data/fault-odds'
import { signedIn } from '@/server/signed-in'
import { FaultSheet } from '@/shop/library/FaultSheet'

export const metadata: Metadata = { title: 'Faults' }

export default async function FaultsPage() {
  await signedIn('/library/faults')
  return <FaultSheet own={await ownFaultOdds()} />
}
