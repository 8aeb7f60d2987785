import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { boardById, landmarksOf } from '@/data/boards'
import { signedIn } from '@/stations/job/signed-in'
import { BoardSheet } from '@/stations/library/BoardSheet'
import { ShopFrame } from '@/stations/shop/ShopFrame'

export const metadata: Metadata = { title: 'Board' }

export default async function BoardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params
  const account = await signedIn(`/library/boards/${id}`)
  const board = await boardById(id)
  if (!board) notFound()
  return (
    <ShopFrame account={account} here="/library">
      <BoardSheet board={board} landmarks={await landmarksOf(id)} />
    </ShopFrame>
  )
}
