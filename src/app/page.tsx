import { openJobs } from '@/data/jobs'
import { signedIn } from '@/stations/job/signed-in'
import { Bench } from '@/stations/shop/Bench'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export default async function BenchPage() {
  const account = await signedIn('/')
  return (
    <ShopFrame account={account} here="/">
      <Bench jobs={await openJobs()} nowIso={new Date().toISOString()} />
    </ShopFrame>
  )
}
