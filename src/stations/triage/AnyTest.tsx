'use client'
import { useState } from 'react'
import { benchTests } from '@/core/triage/model/bench-tests'
import { testOf } from '@/core/triage/reason/odds'
import { useAnswer } from './use-answer'
import { Button } from '@/ui/Button'
import { SelectField } from '@/ui/Field'

/** Any other test: done because a hand was on it, or because the technician knows better. */
export function AnyTest({ onCarryOut }: { onCarryOut: ((test: string) => void) | null }) {
  const answer = useAnswer()
  const [id, setId] = useState('')
  const test = id ? testOf(id) : null
  return (
    <details className="mt-2">
      <summary className="text-soft">Another test</summary>
      <SelectField label="Which" value={id} onChange={(e) => setId(e.target.value)}>
        <option value="">…</option>
        {benchTests.map((t) => (
          <option key={t.id} value={t.id}>
            {t.say}, {t.minutes} min
          </option>
        ))}
      </SelectField>
      {test && (
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          {test.outcomes.map((outcome) => (
            <Button
              key={outcome}
              className="px-2! py-0.5! font-normal!"
              onClick={() => {
                answer({ test: test.id, outcome })
                setId('')
              }}
            >
              {outcome}
            </Button>
          ))}
          {onCarryOut && (
            <Button
              className="py-0.5!"
              onClick={() => {
                onCarryOut(test.id)
                setId('')
              }}
            >
              Carry it out
            </Button>
          )}
        </div>
      )}
    </details>
  )
}
