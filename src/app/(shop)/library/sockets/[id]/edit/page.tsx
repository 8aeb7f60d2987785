import { notFound } from 'next/navigation'
import { socketById } from '@/data/sockets'
import { signedIn } from '@/server/signed-in'
import { FieldEditor } from '@/shop/library/FieldEditor'

export default async function EditFieldPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params
  await signedIn(`/library/sockets/${id}/edit`)
  const socket = await socketById(id)
  if (!socket) notFound()
  return <FieldEditor socket={socket} />
}
