import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { boardById, landmarksOf } from '@/data/boards'
import { referencesOf } from '@/data/references'
import { sayWay } from '@/core/firmware/route/way'
import { signedIn } from '@/server/signed-in'
import { BoardSheet } from '@/shop/library/BoardSheet'

export const metadata: Metadata = { title: 'Board' }

export default async function BoardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params
  await signedIn(`/library/boards/${id}`)
  const board = await boardById(id)
  if (!board) notFound()
  const [landmarks, { codes, rails, current, releases, cpus, ways, chips }] = await Promise.all([
    landmarksOf(id),
    referencesOf(id),
  ])
  return (
    <BoardSheet
      board={board}
      landmarks={landmarks}
      references={{
        codes: codes && `${codes.codes.length} codes${codes.name && `, ${codes.name}`}`,
        rails: rails && `${Object.keys(rails.rails).length} rails${rails.name && `, ${rails.name}`}`,
        current: current && current.reading.say,
        releases:
          releases && `${releases.releases.length} releases, the newest ${releases.releases.at(-1)!.name}`,
        cpus: cpus && `${new Set(cpus.support.map((s) => s.cpu)).size} CPUs`,
        ways: ways && ways.ways.map(sayWay).join('; '),
        chips: chips && chips.chips.map((c) => c.name).join(', '),
      }}
    />
  )
}
