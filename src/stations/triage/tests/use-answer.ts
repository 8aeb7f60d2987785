'use client'
import { lineOfTest } from '@/core/triage/test-line'
import type { TriageBodies } from '@/core/triage/bodies'
import { useJob } from '@/job/JobProvider'

/** Notes what a test gave, as the line of what it measures. */
export function useAnswer(): (trial: TriageBodies['trial']) => void {
  const append = useJob((j) => j.append)
  return (trial) => {
    const { kind, body } = lineOfTest(trial)
    append(kind, body)
  }
}
