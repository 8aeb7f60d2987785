import type { Metadata } from 'next'
import { donors } from '@/data/donors'
import { shelf } from '@/data/shelf'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/stations/job/signed-in'
import { Donors } from '@/stations/shop/Donors'
import { Shelf } from '@/stations/shop/Shelf'
import { ShopFrame } from '@/stations/shop/ShopFrame'

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
