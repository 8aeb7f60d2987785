'use client'
import type { Station } from '@/core/board/station'

import { useState } from 'react'
import type { ReactNode } from 'react'
import type { Step } from '@/core/board/step'
import { markWords } from '@/core/work/slice'
import { StationLink } from './StationLink'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { useKeyHint, useKeys } from './use-keys'
import { Sheet } from '@/ui/Sheet'
import { useJob } from '@/job/JobProvider'

/** The line at the end of a station: how it stands, where the job waits; done with it, skipped with a reason, or opened again. */
export function StationFoot({
  station,
  elsewhere,
  children,
}: {
  station: Station
  /** The next step of the job, when it is at another station. */
  elsewhere: Step | null
  children?: ReactNode
}) {
  const mark = useJob((j) => j.state.work.marks[station].mark)
  const append = useJob((j) => j.append)
  const [passing, setPassing] = useState(false)
  const [why, setWhy] = useState('')
  const [missing, setMissing] = useState(false)
  const open = mark === 'untouched' || mark === 'open'
  const settle = () => append('station', { station, mark: open ? 'settled' : 'open', why: '' })
  useKeys({ settle }, station !== 'hand-back')
  const hint = useKeyHint()
  return (
    <div className="no-print flex min-w-0 items-center gap-4 border-t border-line py-1 text-[0.88rem] max-lg:flex-wrap">
      <div className="flex min-w-0 flex-1 items-baseline gap-4 overflow-hidden whitespace-nowrap text-soft">
        {children}
        {elsewhere && (
          <span className="min-w-28 truncate" title={elsewhere.say}>
            next at {elsewhere.station}:{' '}
            <StationLink
              to={elsewhere.station}
              part={elsewhere.part}
              className="text-ink underline decoration-line underline-offset-4"
            >
              {elsewhere.say}
            </StationLink>
          </span>
        )}
      </div>
      {!open && <span className="text-soft">{markWords[mark]}</span>}
      {open && station !== 'hand-back' && (
        <Button look="bare" className="py-0.5!" onClick={() => setPassing(true)}>
          Skip…
        </Button>
      )}
      {/* A hand-back is done by handing back. */}
      {station !== 'hand-back' && (
        <Button onClick={settle} keyHint={hint('settle')} className="py-0.5!">
          {open ? 'Mark station done' : 'Open it again'}
        </Button>
      )}
      <Sheet open={passing} title={`Skip ${station}`} onClose={() => setPassing(false)}>
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            if (!why.trim()) return setMissing(true)
            append('station', { station, mark: 'passed over', why: why.trim() })
            setPassing(false)
          }}
        >
          <TextField
            label="Because"
            value={why}
            onChange={(e) => setWhy(e.target.value)}
            error={missing ? 'A few words, so that the next person knows.' : undefined}
            hint="Like: nothing points here"
            autoFocus
          />
          <Button type="submit" look="first" className="self-start">
            Skip this station
          </Button>
        </form>
      </Sheet>
    </div>
  )
}
