import { donors } from '@/data/donors'
import { testShelf } from '@/data/shelf'
import { stock } from '@/data/stock'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { BenchCpus } from '@/shop/BenchCpus'
import { Donors } from '@/shop/Donors'
import { Stock } from '@/shop/Stock'
import { Shelf } from '@/shop/Shelf'

export default async function ShelfPage() {
  await signedIn('/shelf')
  const all = await stock()
  return (
    <>
      <Shelf atHand={await testShelf()} />
      <Stock stock={all.filter(({ ofKit }) => !ofKit)} />
      <BenchCpus cpus={all.filter(({ ofKit }) => ofKit)} />
      <Donors donors={await donors()} sockets={await listSockets()} />
    </>
  )
}
