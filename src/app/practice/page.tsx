import type { Metadata } from 'next'
import { practiceBoards } from '@/data/jobs'
import { signedIn } from '@/server/signed-in'
import { Practice } from '@/shop/practice/Practice'
import { ShopFrame } from '@/shop/ShopFrame'

export const metadata: Metadata = { title: 'Practice' }

export default async function PracticePage() {
  const account = await signedIn('/practice')
  return (
    <ShopFrame account={account} here="/practice">
      <Practice boards={await practiceBoards()} />
    </ShopFrame>
  )
}
