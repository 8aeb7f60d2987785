import { donors } from '@/data/donors'
import { shelf } from '@/data/shelf'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { Donors } from '@/shop/Donors'
import { Shelf } from '@/shop/Shelf'

export default async function ShelfPage() {
  await signedIn('/shelf')
  return (
    <>
      <Shelf atHand={await shelf()} />
      <Donors donors={await donors()} sockets={await listSockets()} />
    </>
  )
}
