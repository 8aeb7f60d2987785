import { shopHours } from '@/data/shop-hours'
import { signedIn } from '@/server/signed-in'
import { HoursSheet } from '@/shop/library/HoursSheet'

export default async function HoursPage() {
  const { role } = await signedIn('/library/hours')
  return <HoursSheet hours={await shopHours()} mayChange={role === 'lead'} />
}
