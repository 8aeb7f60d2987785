import { ownFaultOdds } from '@/data/fault-odds'
import { signedIn } from '@/server/signed-in'
import { FaultSheet } from '@/shop/library/FaultSheet'

export default async function FaultsPage() {
  await signedIn('/library/faults')
  return <FaultSheet own={await ownFaultOdds()} />
}
