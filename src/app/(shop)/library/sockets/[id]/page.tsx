import { notFound } from 'next/navigation'
import { socketById } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { SocketSheet } from '@/shop/library/SocketSheet'

export default async function SocketPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params
  await signedIn(`/library/sockets/${id}`)
  const socket = await socketById(id)
  if (!socket) notFound()
  return <SocketSheet socket={socket} />
}
