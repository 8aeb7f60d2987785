import type { Metadata } from 'next'
import { displayList } from '@/core/socket/map/display-list'
import { toSvg } from '@/core/socket/map/svg'
import { openedQuestion } from '@/server/opinion'
import { OpinionPage } from '@/opinion/OpinionPage'

export const metadata: Metadata = {
  title: 'Another pair of eyes',
  robots: { index: false, follow: false },
  referrer: 'no-referrer',
}

/** One question about one board, for whoever has its link: its photos, its contact map and what was noted; nothing of its owner, nor what the shop thinks. */
export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const question = await openedQuestion(token)
  if (!question)
    return (
      <main className="mx-auto mt-[12vh] max-w-md p-6">
        <h1 className="text-2xl">This link opens nothing.</h1>
        <p className="mt-2 text-soft">
          It was closed, has run out, or is not whole. Ask the workshop for another one.
        </p>
      </main>
    )
  const { sees, tag, map } = question
  return (
    <OpinionPage
      token={token}
      tag={tag}
      sees={sees}
      map={map && toSvg(displayList(map.socket, map.pass), map.socket.pitchMm, 'paper', map.title)}
    />
  )
}
