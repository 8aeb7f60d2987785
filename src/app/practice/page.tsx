import type { Metadata } from 'next'
import { practiceBoards } from '@/data/jobs'
import { signedIn } from '@/stations/job/signed-in'
import { Practice } from '@/stations/practice/Practice'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Practice' }

export default async function PracticePage() {
  const account = await signedIn('/practice')
  return (
    <ShopFrame account={account} here="/practice">
      <Practice boards={await practiceBoards()} />
    </ShopFrame>
  )
}
