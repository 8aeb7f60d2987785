import type { Metadata } from 'next'
import { OpensNothing } from '@/ui/OpensNothing'
import { openedQuestion } from '@/server/opinion'
import { OpinionPage } from '@/opinion/OpinionPage'

export const metadata: Metadata = {
  title: 'A second opinion',
  robots: { index: false, follow: false },
  referrer: 'no-referrer',
}

/** One question about one board, for whoever has its link: its photos, its contact map and what was noted; nothing of its owner, nor what the shop thinks. */
export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params
  const question = await openedQuestion(token)
  if (!question) return <OpensNothing />
  const { sees, tag, map } = question
  return <OpinionPage token={token} tag={tag} sees={sees} map={map} />
}
