import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import type { ReactNode } from 'react'
import { landmarksOf } from '@/data/boards'
import { customerOf, jobByTag } from '@/data/jobs'
import { foldTape, readTape } from '@/data/tape'
import { JobFrame } from '@/stations/job/JobFrame'
import { JobProvider } from '@/stations/job/JobProvider'
import { signedIn } from '@/stations/job/signed-in'

interface Props {
  readonly params: Promise<{ tag: string }>
  readonly children: ReactNode
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: (await params).tag }
}

export default async function JobLayout({ params, children }: Props) {
  const { tag } = await params
  const account = await signedIn(`/jobs/${tag}`)
  const job = await jobByTag(tag)
  if (!job) notFound()
  const entries = await readTape(job.id)
  const { state, socket } = await foldTape(entries)
  const [landmarks, customer] = await Promise.all([
    landmarksOf(state.ticket.boardModelId),
    customerOf(job.customerId),
  ])
  return (
    <JobProvider key={job.id} seed={{ tag: job.tag, me: account.name, entries, socket, landmarks, customer }}>
      <JobFrame>{children}</JobFrame>
    </JobProvider>
  )
}
