'use client'
import { useForm } from 'react-hook-form'
import type { SwapPart, SwapPlace } from '@/core/triage/bodies'
import { swapParts } from '@/core/triage/bodies'

import { useMemo, useState } from 'react'
import { sayOutcome } from '@/core/triage/model/outcome-words'
import { testsOf } from '@/core/triage/model/shows'
import { openOutcomes } from '@/core/triage/model/start-model'
import { listedAt } from '@/core/firmware/route/listed'
import { readGrid, swapTells, swapWorks } from '@/core/triage/instruments/swap-grid'
import { useJob } from '@/job/JobProvider'
import { useShown } from '@/job/use-shown'
import { useListedSwaps } from './use-listed-swaps'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { ChoiceField } from '@/ui/ChoiceField'
import { SelectField, TextField } from '@/ui/Field'
import { sentence } from '@/core/sentence'

const partHint: Readonly<Record<SwapPart, string>> = {
  module: 'own 1, bench 8 GB',
  CPU: 'own, bench Orrin 44',
  card: 'own, bench card',
  supply: 'own, bench',
  drive: 'own, bench',
}
/** Where a part of each kind is tried. */
const places: Readonly<Record<SwapPart, readonly SwapPlace[]>> = {
  module: ['slot A', 'slot B', 'both slots', 'another board'],
  CPU: ['this board', 'another board'],
  card: ['this board', 'another board'],
  supply: ['this board', 'another board'],
  drive: ['this board', 'another board'],
}
/** What the place is called where there may be several. */
const nameHint: Readonly<Partial<Record<SwapPart, readonly [label: string, like: string]>>> = {
  module: ['Which slot', 'A2'],
  card: ['Which slot', 'upper'],
  drive: ['Which lead', 'lead 1'],
}

/** What was tried where and what it gave: parts down, places across; what the pattern says, and the cell to try next. */
export function SwapsPanel() {
  const swaps = useListedSwaps()
  const [what, setWhat] = useState<SwapPart>(swaps.at(-1)?.what ?? 'module')
  const grid = useMemo(() => readGrid(what, swaps), [what, swaps])
  const tried = (part: string, place: string) =>
    swaps.findLast((s) => s.what === what && s.part === part && s.place === place)
  return (
    <div>
      <Choice label="Which part" value={what} options={swapParts} onChange={setWhat} />
      <div className="mt-2 grid gap-x-8 @3xl:grid-cols-2">
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
                            <span
                              className={
                                swapWorks(swap) ? 'text-verd' : swapTells(swap) ? 'text-ember' : 'text-soft'
                              }
                            >
                              {swapWorks(swap) ? '● works' : swapTells(swap) ? '✕ fails' : '○ shows nothing'}
                              <span className="block text-[0.85rem] text-soft">
                                {sayOutcome(swap.outcome)}
                              </span>
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

interface SwapForm {
  part: string
  where: SwapPlace
  place: string
  known: 'known good' | 'not known'
  listed: 'yes' | 'no' | 'not known'
  outcome: string
}

function AddSwap({ what }: { what: SwapPart }) {
  const append = useJob((j) => j.append)
  const gate = useJob((j) => j.gate)
  const { register, control, handleSubmit, watch, setValue, formState } = useForm<SwapForm>({
    defaultValues: {
      part: '',
      where: places[what][0]!,
      place: '',
      known: 'not known',
      listed: 'not known',
      outcome: '',
    },
  })
  const { errors } = formState
  const firmware = useJob((j) => j.state.firmware)
  const references = useJob((j) => j.setting.references)
  const byTable = what === 'CPU' ? listedAt(firmware, references, watch('part'), Infinity) : null
  const unlisted = what === 'CPU' && (byTable?.listed ?? watch('listed')) !== 'yes'
  const shown = useShown()
  const outcomes = useMemo(() => {
    const told = testsOf(shown).find((t) => t.id === 'as it came')!.outcomes
    return [...told, ...Object.keys(openOutcomes).filter((o) => !told.includes(o))]
  }, [shown])
  const named = watch('where') !== 'another board' && nameHint[what]
  const keep = handleSubmit(({ part, where, place, known, listed, outcome }) => {
    const called = (named && place.trim()) || where
    const own = { what, part: part.trim(), where, place: called, knownGood: known === 'known good', outcome }
    append('swap', what === 'CPU' ? { ...own, listed: byTable?.listed ?? listed } : own)
    setValue('outcome', '')
  })
  const told = (fault: string) => ({ validate: (text: string) => text.trim() !== '' || fault })
  return (
    <form className="mt-4 flex flex-col gap-2 @3xl:mt-0" onSubmit={keep}>
      <div className={`grid gap-3 ${named ? 'grid-cols-2' : ''}`}>
        <TextField
          label={what === 'CPU' ? 'CPU' : what[0]!.toUpperCase() + what.slice(1)}
          {...register('part', told(`Which ${what}? A name you know it by.`))}
          error={errors.part?.message}
          placeholder={partHint[what]}
        />
        {named && <TextField label={named[0]} {...register('place')} placeholder={named[1]} />}
      </div>
      <ChoiceField label="Where" control={control} name="where" options={places[what]} />
      <ChoiceField label="It is" control={control} name="known" options={['known good', 'not known']} />
      {what === 'CPU' && (
        <>
          {byTable ? (
            <p>
              By the table, {byTable.release} {byTable.listed === 'yes' ? 'runs' : 'does not run'}{' '}
              {byTable.cpu}.
            </p>
          ) : (
            <ChoiceField
              label="On the list"
              control={control}
              name="listed"
              options={['yes', 'no', 'not known']}
            />
          )}
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
        {...register('outcome', told('What did the start come to?'))}
        error={errors.outcome?.message}
      >
        <option value="">…</option>
        {outcomes.map((o) => (
          <option key={o} value={o}>
            {sayOutcome(o)}
          </option>
        ))}
      </SelectField>
      <Button type="submit" className="self-start">
        Note this trial
      </Button>
    </form>
  )
}
