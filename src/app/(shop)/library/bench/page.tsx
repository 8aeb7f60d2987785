import { ownFigures } from '@/data/bench-figures'
import { signedIn } from '@/server/signed-in'
import { BenchSheet } from '@/shop/library/BenchSheet'

export default async function BenchPage() {
  await signedIn('/library/bench')
  return <BenchSheet own={await ownFigures()} />
}
