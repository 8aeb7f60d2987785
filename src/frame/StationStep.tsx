'use client'
import { useState } from 'react'
import type { Station } from '@/core/board/station'
import type { Step } from '@/core/board/step'
import { nextStep, stepAt } from '@/core/job/next-step'
import type { SocketWork } from '@/core/socket/next-step'
import { NextStep } from '@/ui/NextStep'
import { useAdvice } from '@/job/AdviceProvider'
import { useJob } from '@/job/JobProvider'
import { StationLink } from './StationLink'

/** What to do next at this station, and where the job waits when that is elsewhere: one adviser for all of them. */
export function StationStep({ station, work = null }: { station: Station; work?: SocketWork | null }) {
  const state = useJob((j) => j.state)
  const field = useJob((j) => j.socket)
  const gate = useJob((j) => j.gate)
  const keptStep = useJob((j) => j.nextStep)
  const advice = useAdvice()
  const { fresh } = advice
  const advised = {
    state,
    field,
    gate,
    belief: fresh ? advice.belief : null,
    work: work ?? (fresh ? advice.work : null),
  }
  const here = useSteady(stepAt(station, advised), keptStep)
  const first = useSteady(nextStep(advised), keptStep)
  return (
    <NextStep say={here.say} why={here.why}>
      {first.station !== station && first.say !== here.say && (
        <p className="mt-0.5 text-[0.97rem]">
          <span className="text-soft">The job waits at {first.station}: </span>
          <StationLink to={first.station} part={first.part} className="underline decoration-line">
            {first.say}
          </StationLink>
        </p>
      )}
    </NextStep>
  )
}

/** While what a step follows from is being computed, the last one stays; at first the one that was kept with the tape. */
function useSteady(step: Step, kept: Step | null): Step {
  const [last, setLast] = useState<Step | null>(kept)
  if (!step.pending) {
    if (last?.say !== step.say || last.why !== step.why || last.station !== step.station) setLast(step)
    return step
  }
  return last?.station === step.station ? last : step
}
