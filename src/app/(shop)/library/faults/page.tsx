import { ownFaultOdds } from '@/data/fault-odds'
import { repairRecord } from '@/data/repair-record'
import { signedIn } from '@/server/signed-in'
import { FaultSheet } from '@/shop/library/FaultSheet'

export default async function FaultsPage() {
  await signedIn('/library/faults')
  const [own, repairs] = await Promise.all([ownFaultOdds(), repairRecord()])
  return <FaultSheet own={own} repairs={repairs} />
}
