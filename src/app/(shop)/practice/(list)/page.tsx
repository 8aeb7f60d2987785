import type { Metadata } from 'next'
import { practiceBoards } from '@/data/jobs'
import { signedIn } from '@/server/signed-in'
import { Practice } from '@/shop/practice/Practice'

export const metadata: Metadata = { title: 'Practice' }

export default async function PracticePage() {
  await signedIn('/practice')
  return <Practice boards={await practiceBoards()} />
}
