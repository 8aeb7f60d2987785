import { benchCpus } from '@/data/bench-cpus'
import { donors } from '@/data/donors'
import { shelf } from '@/data/shelf'
import { stock } from '@/data/stock'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { BenchCpus } from '@/shop/BenchCpus'
import { Donors } from '@/shop/Donors'
import { Stock } from '@/shop/Stock'
import { Shelf } from '@/shop/Shelf'

export default async function ShelfPage() {
  await signedIn('/shelf')
  return (
    <>
      <Shelf atHand={await shelf()} />
      <Stock stock={await stock()} />
      <BenchCpus cpus={(await benchCpus()).filter((c) => c.owned).map((c) => c.cpu)} />
      <Donors donors={await donors()} sockets={await listSockets()} />
    </>
  )
}
