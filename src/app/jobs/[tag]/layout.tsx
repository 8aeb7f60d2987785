import { notFound } from 'next/navigation'
import type { ReactNode } from 'react'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { customerOf, jobByTag } from '@/data/jobs'
import { foldTape } from '@/data/job-now'
import { readTape } from '@/data/read-tape'
import { AdviceProvider } from '@/job/AdviceProvider'
import { JobFrame } from '@/frame/JobFrame'
import { JobProvider } from '@/job/JobProvider'
import { adviceKept, adviseSoon } from '@/server/advise'
import { signedIn } from '@/server/signed-in'
import { surroundingsOf } from '@/server/surroundings'

interface Props {
  readonly params: Promise<{ tag: string }>
  readonly children: ReactNode
}

export default async function JobLayout({ params, children }: Props) {
  const { tag } = await params
  const account = await signedIn(`/jobs/${tag}`)
  const job = await jobByTag(tag)
  if (!job) notFound()
  const entries = await readTape(job.id)
  const { state, socket } = await foldTape(entries)
  const [surroundings, customer, hidden] = await Promise.all([
    surroundingsOf(job, state, socket),
    customerOf(job.customerId),
    hiddenBoardOf(job.id),
  ])
  const kept = await adviceKept(job.id, state, socket, surroundings.setting)
  // The bench list then says what the page does.
  if (!kept) adviseSoon(job.id)
  const simulated = !hidden ? 'no' : job.practice ? 'practice' : 'demo'
  return (
    <JobProvider
      key={job.id}
      sent={{
        tag: job.tag,
        me: account.name,
        entries,
        ...surroundings,
        socket: socket && JSON.stringify(socket),
        simulated,
        customer,
        nextStep: kept?.nextStep ?? null,
        keptBelief: kept?.belief ?? null,
      }}
    >
      <AdviceProvider>
        <JobFrame>{children}</JobFrame>
      </AdviceProvider>
    </JobProvider>
  )
}
