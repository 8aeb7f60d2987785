import { notFound } from 'next/navigation'
import { stations } from '@/core/job/entry'
import { listBoards } from '@/data/boards'
import { listSockets } from '@/data/sockets'
import { Surface } from './Surface'

export default async function StationPage({ params }: { params: Promise<{ station: string }> }) {
  const { station } = await params
  if (!stations.some((s) => s === station)) notFound()
  const [boards, sockets] = await Promise.all([listBoards(), listSockets()])
  return <Surface boards={boards} sockets={sockets} />
}
