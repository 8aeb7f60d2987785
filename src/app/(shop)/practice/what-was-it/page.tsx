import { signedIn } from '@/server/signed-in'
import { WhatWasItPractice } from '@/shop/practice/WhatWasItPractice'

export default async function WhatWasItPage() {
  await signedIn('/practice/what-was-it')
  return <WhatWasItPractice />
}
