'use client'
import { baselineChanges } from '@/core/triage/model/stage'
import { useJob } from '@/job/JobProvider'

/** What the last power-up did that the one before it did not. */
export function SinceLast() {
  const baselines = useJob((j) => j.state.board.baselines)
  const [before, last] = [baselines.at(-2), baselines.at(-1)]
  if (!before || !last) return null
  const changes = baselineChanges(before, last)
  return (
    <p className="mb-2 text-[0.9rem] text-soft">
      Since the power-up before:{' '}
      {changes.length === 0
        ? 'nothing changed that was noted.'
        : changes.map((c) => `${c.what} ${c.before} → ${c.after}`).join(', ')}
    </p>
  )
}
