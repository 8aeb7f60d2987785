'use client'
import { useState } from 'react'
import { showsColumns, showsRows, signals } from '@/core/triage/model/shows'
import type { Shown, Signal } from '@/core/triage/model/shows'
import { useJob } from '@/job/JobProvider'
import { writeCsv } from '@/tables/write-csv'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { useTable } from '@/ui/use-table'

const words: Readonly<Record<Signal, string>> = {
  'debug LEDs': 'debug LEDs',
  'code display': 'code display',
  'code card': 'takes a code card',
  beeper: 'beeper',
}

const NOTHING_SAID = 'Nothing is said yet: at least whether it has debug LEDs.'

/** What boards of this model can show, asked once a model: what it cannot show is not asked of a start any more. */
export function WhatItShows() {
  const ticket = useJob((j) => j.state.intake.ticket)
  const known = useJob((j) => j.setting.references.shows !== null)
  const practises = useJob((j) => j.simulated === 'practice')
  const { answer, busy, send } = useTable(`/api/boards/${ticket.boardModelId}/references/shows`)
  const [shown, setShown] = useState<Shown>({})
  const [asked, setAsked] = useState(false)
  if (known || practises || ticket.boardModelId === null) return null
  const rows = showsRows({ name: '', shown })
  const fault = answer?.error?.text ?? (asked && rows.length === 0 ? NOTHING_SAID : null)
  const keep = () => {
    setAsked(true)
    if (rows.length > 0) void send(new File([writeCsv([...showsColumns], rows)], 'shows.csv'), { name: '' })
  }

  return (
    <section aria-label="What this board can show" className="mb-3 border-l-[3px] border-brass pl-3">
      <p>
        What can a {ticket.board} show?{' '}
        <span className="text-soft">Asked once; it stands in the library.</span>
      </p>
      <div className="my-1 grid gap-x-4 sm:grid-cols-2">
        {signals.map((what) => (
          <Choice
            key={what}
            label={words[what]}
            wide
            value={shown[what] === undefined ? 'not said' : shown[what] ? 'yes' : 'no'}
            options={['yes', 'no']}
            none="not said"
            onChange={(is) => setShown({ ...shown, [what]: is === 'not said' ? undefined : is === 'yes' })}
          />
        ))}
      </div>
      {fault && (
        <p role="alert" className="font-semibold text-ember">
          {fault}
        </p>
      )}
      <Button className="px-2.5! py-0.5!" onClick={keep} disabled={busy}>
        Keep for every {ticket.board}
      </Button>
    </section>
  )
}
