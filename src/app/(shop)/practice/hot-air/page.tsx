import { signedIn } from '@/server/signed-in'
import { HotAirPractice } from '@/shop/practice/HotAirPractice'

export default async function HotAirPage() {
  await signedIn('/practice/hot-air')
  return <HotAirPractice />
}
