'use client'
import { useState } from 'react'
import { countsOwed } from '@/core/parts/before-iron'
import { expectedAt, lastCounts, sayCount, shortOf } from '@/core/parts/count'
import { partPlaces } from '@/core/parts/found'
import type { PartPlace } from '@/core/parts/found'
import { lastIron } from '@/core/job/last-iron'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { SelectField, TextField } from '@/ui/Field'
import { typedNumber } from '@/ui/typed-number'

/** How many small parts stand at a place, before the iron and after it: what the air carried off is missed at once. */
export function CountParts({ onMap }: { onMap: Readonly<Partial<Record<PartPlace, number>>> }) {
  const append = useJob((j) => j.append)
  const parts = useJob((j) => j.state.parts)
  const owed = useJob((j) => countsOwed(j.state.parts, lastIron(j.state))[0])
  const [chosen, setChosen] = useState<PartPlace | null>(null)
  const place = chosen ?? owed?.place ?? 'at the firmware chip'
  const [typed, setTyped] = useState('')
  const [error, setError] = useState('')
  const expected = expectedAt(parts, place)
  const mapped = onMap[place]
  const note = () => {
    const count = typedNumber(typed)
    if (!(Number.isInteger(count) && count >= 0 && count <= 500)) {
      setError('a count, 0 to 500')
      return
    }
    append('parts counted', { place, count, ...(expected === null ? {} : { of: expected }) })
    setTyped('')
    setError('')
    setChosen(null)
  }
  return (
    <section id="count" aria-label="Small parts counted" className="mb-3 border-b border-line pb-3">
      <form
        className="grid grid-cols-[minmax(0,1fr)_minmax(0,0.8fr)_auto] items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault()
          note()
        }}
      >
        <SelectField
          label="Small parts"
          value={place}
          onChange={(e) => setChosen(e.target.value as PartPlace)}
        >
          {partPlaces.map((p) => (
            <option key={p}>{p}</option>
          ))}
        </SelectField>
        <TextField
          label="Counted"
          inputMode="numeric"
          className="num"
          value={typed}
          error={error}
          placeholder={String(expected ?? mapped ?? '')}
          onChange={(e) => setTyped(e.target.value)}
        />
        <Button type="submit" look={owed ? 'first' : 'quiet'}>
          Note the count
        </Button>
      </form>
      <p className="mt-1 text-[0.94rem] text-soft">
        {expected !== null
          ? `${expected} should be there.${owed?.place === place ? ' Not counted since the iron was there.' : ''}`
          : mapped !== undefined
            ? `The board map has ${mapped} with a line there. Count before the iron, and after it.`
            : 'Count before the iron, and after it: hot air carries small parts off.'}
      </p>
      {lastCounts(parts).map((c) => (
        <p key={c.place} className={shortOf(c) > 0 ? 'font-semibold text-ember' : 'text-[0.94rem]'}>
          {sayCount(c)}
        </p>
      ))}
    </section>
  )
}
