'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { minutesOf } from '@/core/triage/practice/practice-score'
import { practiceSteps } from '@/core/job/practice-steps'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Sheet } from '@/ui/Sheet'

/** On a practice board: the minutes its steps have cost, and the end of it. */
export function PracticeStrip() {
  const simulated = useJob((j) => j.simulated)
  const state = useJob((j) => j.state)
  const references = useJob((j) => j.setting.references)
  const tag = useJob((j) => j.tag)
  const unsent = useJob((j) => j.unsent.length)
  const router = useRouter()
  const [asked, setAsked] = useState(false)
  const [say, setSay] = useState('')
  if (simulated !== 'practice') return null
  const minutes = practiceSteps(state, references).reduce((sum, step) => sum + minutesOf(step), 0)
  const limit = state.intake.ticket.minutesPromised
  const over = limit !== null && minutes > limit
  async function end() {
    setSay('')
    try {
      const answer = await fetch(`/api/practice/${tag}`, { method: 'POST' })
      if (answer.ok) return router.push(`/practice/${tag}`)
      setSay(((await answer.json()) as { error?: { text: string } }).error?.text ?? 'The server refused it.')
    } catch {
      setSay('The server does not answer. The board stays as it is; try again in a moment.')
    }
  }
  return (
    <div className="mb-3 flex items-center justify-between gap-4 border-l-4 border-slate pl-3">
      <p>
        <b className="font-semibold">Practice.</b>{' '}
        <span className={`num ${over ? 'font-semibold text-ember' : ''}`}>{minutes}</span>
        {limit !== null && <span className="num"> of {limit}</span>} simulated minutes
        {over && ': over the limit'}. Repair what you find; end it when you think it is right.
      </p>
      <Button className="shrink-0" onClick={() => setAsked(true)}>
        Show what was wrong
      </Button>
      <Sheet open={asked} title="End this practice?" onClose={() => setAsked(false)}>
        <p>
          {state.triage.mended.length === 0
            ? 'You have repaired nothing yet. The faults are shown and the board is scored as it stands.'
            : `You have repaired ${state.triage.mended.length}. The faults are shown and the board is scored as it stands.`}
        </p>
        {say && (
          <p role="alert" className="mt-2 font-semibold text-ember">
            {say}
          </p>
        )}
        <Button look="first" className="mt-3" onClick={() => void end()} disabled={unsent > 0}>
          Show and score
        </Button>
      </Sheet>
    </div>
  )
}
