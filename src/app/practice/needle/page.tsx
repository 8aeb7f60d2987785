import type { Metadata } from 'next'
import { signedIn } from '@/server/signed-in'
import { NeedlePractice } from '@/shop/practice/NeedlePractice'
import { ShopFrame } from '@/shop/ShopFrame'

export const metadata: Metadata = { title: 'Needle practice' }

export default async function NeedlePage() {
  const account = await signedIn('/practice/needle')
  return (
    <ShopFrame account={account} here="/practice">
      <NeedlePractice />
    </ShopFrame>
  )
}
