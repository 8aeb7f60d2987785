import type { Metadata } from 'next'
import { shelf } from '@/data/shelf'
import { signedIn } from '@/stations/job/signed-in'
import { Shelf } from '@/stations/shop/Shelf'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Shelf' }

export default async function ShelfPage() {
  const account = await signedIn('/shelf')
  return (
    <ShopFrame account={account} here="/shelf">
      <Shelf atHand={await shelf()} />
    </ShopFrame>
  )
}
