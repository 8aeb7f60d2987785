import { stations } from '@/core/board/station'
import { notFound } from 'next/navigation'
import { listBoards } from '@/data/boards'
import { listSockets } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { Surface } from './Surface'

export default async function StationPage({ params }: { params: Promise<{ tag: string; station: string }> }) {
  const { tag, station } = await params
  await signedIn(`/jobs/${tag}/${station}`)
  if (!stations.some((s) => s === station)) notFound()
  const [boards, sockets] = await Promise.all([listBoards(), listSockets()])
  return <Surface boards={boards} sockets={sockets} />
}
