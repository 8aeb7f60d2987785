import { practiceBoards } from '@/data/jobs'
import { signedIn } from '@/server/signed-in'
import { Practice } from '@/shop/practice/Practice'

export default async function PracticePage() {
  await signedIn('/practice')
  return <Practice boards={await practiceBoards()} />
}
