import type { Metadata } from 'next'
import { donors } from '@/data/donors'
import { shelf } from '@/data/shelf'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { Donors } from '@/shop/Donors'
import { Shelf } from '@/shop/Shelf'
import { ShopFrame } from '@/shop/ShopFrame'

export const metadata: Metadata = { title: 'Shelf' }

export default async function ShelfPage() {
  const account = await signedIn('/shelf')
  return (
    <ShopFrame account={account} here="/shelf">
      <Shelf atHand={await shelf()} />
      <Donors donors={await donors()} sockets={await listSockets()} />
    </ShopFrame>
  )
}
