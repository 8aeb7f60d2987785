'use client'
import type { SwapPart } from '@/core/triage/slice'
import { swapParts } from '@/core/triage/slice'

import { useMemo, useState } from 'react'
import { startOutcomes } from '@/core/triage/model/start-model'
import { readGrid, swapWorks } from '@/core/triage/instruments/swap-grid'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { SelectField, TextField } from '@/ui/Field'
import { sentence } from '@/ui/sentence'

const partHint: Readonly<Record<SwapPart, string>> = {
  module: 'own 1, bench 8 GB',
  CPU: 'own, bench Orrin 44',
  card: 'own, bench card',
  supply: 'own, bench',
  drive: 'own, bench',
}
const placeHint: Readonly<Record<SwapPart, string>> = {
  module: 'A',
  CPU: 'this board',
  card: 'upper slot',
  supply: 'this board',
  drive: 'lead 1',
}

/** What was tried where and what it gave: parts down, places across; what the pattern says, and the cell to try next. */
export function SwapsPanel() {
  const swaps = useJob((j) => j.state.triage.swaps)
  const [what, setWhat] = useState<SwapPart>(swaps.at(-1)?.what ?? 'module')
  const grid = useMemo(() => readGrid(what, swaps), [what, swaps])
  const tried = (part: string, place: string) =>
    swaps.findLast((s) => s.what === what && s.part === part && s.place === place)
  return (
    <div>
      <Choice label="Which part" value={what} options={swapParts} onChange={setWhat} />
      <div className="mt-2 grid grid-cols-2 gap-x-8">
        <div>
          {grid.parts.length === 0 ? (
            <p className="text-soft">
              Nothing was tried yet. One known-good part in each place, and the owner’s in one of them, tells
              them apart.
            </p>
          ) : (
            <table className="w-full">
              <thead>
                <tr>
                  <th className="text-left font-normal text-soft">{what}</th>
                  {grid.places.map((place) => (
                    <th key={place} scope="col" className="num px-2 text-left font-semibold">
                      {place}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {grid.parts.map((part) => (
                  <tr key={part} className="border-t border-line">
                    <th scope="row" className="text-left font-semibold">
                      {part}
                    </th>
                    {grid.places.map((place) => {
                      const swap = tried(part, place)
                      const next = grid.tryNext?.part === part && grid.tryNext.place === place
                      return (
                        <td key={place} className={`px-2 py-1 ${next ? 'border-b-2 border-brass' : ''}`}>
                          {swap ? (
                            <span className={swapWorks(swap) ? 'text-verd' : 'text-ember'}>
                              {swapWorks(swap) ? '● works' : '✕ fails'}
                              <span className="block text-[0.85rem] text-soft">{swap.outcome}</span>
                            </span>
                          ) : (
                            <span className="text-soft">{next ? 'try this next' : '–'}</span>
                          )}
                        </td>
                      )
                    })}
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <p role="status" className="mt-2 border-l-4 border-brass pl-3">
            {sentence(grid.say)}
          </p>
        </div>
        <AddSwap key={what} what={what} />
      </div>
    </div>
  )
}

function AddSwap({ what }: { what: SwapPart }) {
  const put = useJob((j) => j.put)
  const gate = useJob((j) => j.gate)
  const [part, setPart] = useState('')
  const [place, setPlace] = useState('')
  const [known, setKnown] = useState<'known good' | 'not known'>('not known')
  const [outcome, setOutcome] = useState('')
  const [listed, setListed] = useState<'yes' | 'no' | 'not known'>('not known')
  const [faults, setFaults] = useState<{ part?: string; place?: string; outcome?: string }>({})
  const unlisted = what === 'CPU' && listed !== 'yes'
  function keep() {
    const wrong = {
      part: part.trim() ? undefined : `Which ${what}? A name you know it by.`,
      place: place.trim() ? undefined : 'Where was it? A slot, or the board.',
      outcome: outcome ? undefined : 'What did the start come to?',
    }
    setFaults(wrong)
    if (wrong.part || wrong.place || wrong.outcome) return
    const own = { what, part: part.trim(), place: place.trim(), knownGood: known === 'known good', outcome }
    put('swap', what === 'CPU' ? { ...own, listed } : own)
    setOutcome('')
  }
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        keep()
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label={what === 'CPU' ? 'CPU' : what[0]!.toUpperCase() + what.slice(1)}
          value={part}
          onChange={(e) => setPart(e.target.value)}
          error={faults.part}
          placeholder={partHint[what]}
        />
        <TextField
          label="Place"
          value={place}
          onChange={(e) => setPlace(e.target.value)}
          error={faults.place}
          placeholder={placeHint[what]}
          hint="“another board” if it was tried there"
        />
      </div>
      <Choice label="It is" value={known} options={['known good', 'not known']} onChange={setKnown} />
      {what === 'CPU' && (
        <>
          <Choice
            label="On the list"
            value={listed}
            options={['yes', 'no', 'not known']}
            onChange={setListed}
          />
          {unlisted && (
            <Caution>
              Before you fit a CPU this board does not officially run: no start proves nothing, neither
              against the board nor against the CPU; a dark screen does not either, its own graphics may not
              be served; and a start does not prove memory speed or every power state. A faulty board can also
              kill it.
            </Caution>
          )}
        </>
      )}
      {gate.lamp === 'do not power' && (
        <Caution>
          The gate says do not power: {gate.reasons[0]!.text}. Note only a trial that has happened.
        </Caution>
      )}
      <SelectField
        label="The start came to"
        value={outcome}
        error={faults.outcome}
        onChange={(e) => setOutcome(e.target.value)}
      >
        <option value="">…</option>
        {startOutcomes.map((o) => (
          <option key={o}>{o}</option>
        ))}
      </SelectField>
      <Button type="submit" className="self-start">
        Note this trial
      </Button>
    </form>
  )
}
