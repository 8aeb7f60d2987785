import { signedIn } from '@/server/signed-in'
import { NeedlePractice } from '@/shop/practice/NeedlePractice'

export default async function NeedlePage() {
  await signedIn('/practice/needle')
  return <NeedlePractice />
}
