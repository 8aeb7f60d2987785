'use client'
import { useState } from 'react'
import type { ReactNode } from 'react'
import type { Step } from '@/core/board/step'
import { unaccounted } from '@/core/board/slice'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'

/** What to do next in one sentence, why, what it takes and risks, and the answers to it. Its height stays. */
export function NextStrip({ step, answers }: { step: Step; answers?: ReactNode }) {
  return (
    <div
      data-next-step
      className={`no-print grid shrink-0 grid-cols-[minmax(0,1fr)_auto] content-center gap-x-4 border-b-2 border-brass py-1 ${answers === undefined ? 'min-h-20 lg:h-20' : 'min-h-32 lg:h-[138px]'}`}
    >
      <h1
        className={`text-[1.22rem]! ${step.part === 'ledger' ? 'line-clamp-1' : 'line-clamp-2'}`}
        title={step.say}
      >
        {step.say}
      </h1>
      <p key={step.takes} className="max-w-72 text-right text-[0.9rem] text-soft">
        {step.takes}
      </p>
      <p className="truncate text-[0.9rem] text-soft" title={step.why}>
        {step.why}
      </p>
      <p className="max-w-72 truncate text-right text-[0.9rem] text-soft">{step.risks}</p>
      {step.part === 'ledger' ? (
        <FoundIt />
      ) : (
        answers !== undefined && <div className="col-span-full mt-1 h-[68px] overflow-y-auto">{answers}</div>
      )}
    </div>
  )
}

/** What is loose: where it was found, in the strip itself. */
function FoundIt() {
  const [loose] = unaccounted(useJob((j) => j.state.board))
  const append = useJob((j) => j.append)
  const [where, setWhere] = useState('')
  const [missing, setMissing] = useState(false)
  if (!loose) return null
  return (
    <form
      className="col-span-full flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!where.trim()) return setMissing(true)
        append('accounted', { item: loose.id, where: where.trim() })
        setWhere('')
        setMissing(false)
      }}
    >
      <input
        value={where}
        onChange={(e) => setWhere(e.target.value)}
        aria-label={`Where ${loose.what} was found`}
        aria-invalid={missing ? true : undefined}
        placeholder={missing ? 'where? a word is enough' : 'where it was found, or where it went'}
        className="min-w-0 flex-1 py-0.5!"
      />
      <Button type="submit" look="first" className="py-0.5!">
        Found it
      </Button>
    </form>
  )
}
