import type { Metadata } from 'next'
import { signedIn } from '@/server/signed-in'
import { NeedlePractice } from '@/shop/practice/NeedlePractice'

export const metadata: Metadata = { title: 'Needle practice' }

export default async function NeedlePage() {
  await signedIn('/practice/needle')
  return <NeedlePractice />
}
