'use client'
import { lineOfTest } from '@/core/triage/test-line'
import type { TriageBodies } from '@/core/triage/slice'
import { useJob } from '@/job/JobProvider'

/** Notes what a test gave, as the line of what it measures. */
export function useAnswer(): (trial: TriageBodies['trial']) => void {
  const put = useJob((j) => j.put)
  return (trial) => {
    const { kind, body } = lineOfTest(trial)
    put(kind, body)
  }
}
