'use client'
import { useState } from 'react'
import type { Station } from '@/core/board/station'
import type { Step } from '@/core/board/step'
import { nextStep, stepAt } from '@/core/job/next-step'
import type { SocketWork } from '@/core/socket/next-step'
import { useAdvice } from '@/job/AdviceProvider'
import { useJob } from '@/job/JobProvider'

/** What to do next at this station, and where the job waits when that is elsewhere: one adviser for all of them. */
export function useStationStep(
  station: Station,
  work: SocketWork | null,
): { here: Step; elsewhere: Step | null } {
  const state = useJob((j) => j.state)
  const field = useJob((j) => j.socket)
  const gate = useJob((j) => j.gate)
  const setting = useJob((j) => j.setting)
  const keptStep = useJob((j) => j.nextStep)
  const advice = useAdvice()
  const { fresh, failed } = advice
  const advised = {
    state,
    field,
    gate,
    setting,
    belief: fresh ? advice.belief : null,
    work: work ?? (fresh ? advice.work : null),
  }
  const here = useSteady(orFailed(stepAt(station, advised), failed), keptStep)
  const first = useSteady(orFailed(nextStep(advised), failed), keptStep)
  return { here, elsewhere: first.station !== station && first.say !== here.say ? first : null }
}

/** A step that cannot be calculated says so; the last one would pass for it. */
function orFailed(step: Step, failed: boolean): Step {
  if (!failed || !step.pending) return step
  const { station } = step
  return {
    station,
    say: 'Load this page again: what comes next was not calculated.',
    why: 'The part of the page that calculates it did not load, or broke down. Nothing on the tape is lost.',
  }
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
