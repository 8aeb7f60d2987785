import type { Metadata } from 'next'
import { listBoards } from '@/data/boards'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/stations/job/signed-in'
import { Library } from '@/stations/library/Library'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Library' }

export default async function LibraryPage() {
  const account = await signedIn('/library')
  const [sockets, boards] = await Promise.all([listSockets(), listBoards()])
  return (
    <ShopFrame account={account} here="/library">
      <Library sockets={sockets} boards={boards} />
    </ShopFrame>
  )
}
