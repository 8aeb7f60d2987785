'use client'
import type { Station } from '@/core/board/station'

import { useState } from 'react'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { useKeys } from '@/ui/keys'
import { Sheet } from '@/ui/Sheet'
import { useJob } from '@/job/JobProvider'

/** The foot of a station: settle it, pass it over with a reason, or open it again. */
export function StationFoot({ station }: { station: Station }) {
  const mark = useJob((j) => j.state.work.marks[station].mark)
  const put = useJob((j) => j.put)
  const [passing, setPassing] = useState(false)
  const [why, setWhy] = useState('')
  const [missing, setMissing] = useState(false)
  const open = mark === 'untouched' || mark === 'open'
  const settle = () => put('station', { station, mark: open ? 'settled' : 'open', why: '' })
  useKeys({ e: settle })
  return (
    <div className="no-print mt-6 flex items-center gap-3 border-t border-line pt-3">
      <Button onClick={settle} keyHint="e">
        {open ? 'This station is settled' : 'Open it again'}
      </Button>
      {open && (
        <Button look="bare" onClick={() => setPassing(true)}>
          Pass it over…
        </Button>
      )}
      {!open && <span className="text-soft">{mark}</span>}
      <Sheet open={passing} title={`Pass ${station} over`} onClose={() => setPassing(false)}>
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            if (!why.trim()) return setMissing(true)
            put('station', { station, mark: 'passed over', why: why.trim() })
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
            Pass it over
          </Button>
        </form>
      </Sheet>
    </div>
  )
}
