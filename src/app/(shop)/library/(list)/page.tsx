import { listBoards } from '@/data/boards'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { Library } from '@/shop/library/Library'

export default async function LibraryPage() {
  await signedIn('/library')
  const [sockets, boards] = await Promise.all([listSockets(), listBoards()])
  return <Library sockets={sockets} boards={boards} />
}
