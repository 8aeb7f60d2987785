import { notFound } from 'next/navigation'
import { keptMapOf } from '@/data/board-maps'
import { boardById, landmarksOf } from '@/data/boards'
import { referencesOf } from '@/data/references'
import { referenceKinds } from '@/core/job/references'
import type { ReferenceKind } from '@/core/job/references'
import { signedIn } from '@/server/signed-in'
import { sayReference } from '@/tables/read-reference'
import { BoardSheet } from '@/shop/library/BoardSheet'

export default async function BoardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params
  await signedIn(`/library/boards/${id}`)
  const board = await boardById(id)
  if (!board) notFound()
  const [landmarks, references, map] = await Promise.all([landmarksOf(id), referencesOf(id), keptMapOf(id)])
  const kept = Object.fromEntries(
    referenceKinds.map((kind) => {
      const body = references[kind]
      return [kind, body && sayReference(kind, body)]
    }),
  ) as Record<ReferenceKind, string | null>
  return <BoardSheet board={board} landmarks={landmarks} references={kept} map={map} />
}
