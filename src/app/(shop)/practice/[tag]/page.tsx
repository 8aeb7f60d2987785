import { jobState } from '@/core/job/job-state'
import { notFound, redirect } from 'next/navigation'
import { gateOf } from '@/core/job/gate'
import { practiceSteps } from '@/core/job/practice-steps'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { jobByTag } from '@/data/jobs'
import { referencesOf } from '@/data/references'
import { foldTape } from '@/data/job-now'
import { readTape } from '@/data/read-tape'
import { signedIn } from '@/server/signed-in'
import { Review } from '@/shop/practice/Review'

interface Props {
  readonly params: Promise<{ tag: string }>
}

export default async function ReviewPage({ params }: Props) {
  const { tag } = await params
  await signedIn(`/practice/${tag}`)
  const job = await jobByTag(tag)
  const hidden = job?.practice ? await hiddenBoardOf(job.id) : null
  if (!job || !hidden) notFound()
  const { shownSeq } = hidden
  if (shownSeq === null) redirect(`/jobs/${job.tag}/triage`)
  const entries = (await readTape(job.id)).filter((e) => e.seq <= shownSeq)
  const { state } = await foldTape(entries)
  const mayPower = (line: number) => {
    const before = jobState(entries.filter((e) => e.seq < line))
    return gateOf(before, null).lamp !== 'do not power'
  }
  const steps = practiceSteps(state, await referencesOf(state.intake.ticket.boardModelId), mayPower)
  return (
    <Review
      tag={job.tag}
      words={job.words}
      limitMinutes={state.intake.ticket.minutesPromised}
      practice={{ history: state.intake.ticket.history, truth: hidden.faults, seed: hidden.seed, steps }}
      best={hidden.best}
    />
  )
}
