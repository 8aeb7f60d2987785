import type { Metadata } from 'next'
import { signedIn } from '@/stations/job/signed-in'
import { NeedlePractice } from '@/stations/practice/NeedlePractice'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Needle practice' }

export default async function NeedlePage() {
  const account = await signedIn('/practice/needle')
  return (
    <ShopFrame account={account} here="/practice">
      <NeedlePractice />
    </ShopFrame>
  )
}
