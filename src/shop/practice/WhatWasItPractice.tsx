'use client'
import Link from 'next/link'
import { useMemo, useState } from 'react'
import { roles } from '@/core/parts/missing/infer'
import type { Role } from '@/core/parts/missing/infer'
import { asRead, minutesOf, readKinds, reads, scorePart } from '@/core/parts/missing/practice-part'
import type { PadRead, PartPracticeResult, Read } from '@/core/parts/missing/practice-part'
import { readingsOf } from '@/core/parts/missing/pad'
import { readValue, sayValue } from '@/core/parts/value/quantity'
import { percent } from '@/core/maths/percent'
import { boardWithPartGone } from '@/simulated-bench/missing-part'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { SelectField, TextField } from '@/ui/Field'
import { meanOf, PracticeFigures } from './PracticeFigures'

const FIRST_SEED = 1
const anySeed = () => crypto.getRandomValues(new Uint32Array(1))[0]! >>> 8
const pads = ['a', 'b'] as const
const readWords: Readonly<Record<Read, string>> = {
  ground: 'Ω to ground',
  diode: 'Diode range',
  rails: 'Ω to supplies',
  pins: 'Beep out to pins',
}
const valueSays: Readonly<Record<PartPracticeResult['value'], string>> = {
  right: 'The value would do.',
  'far off': 'The value is far off.',
  'not tried': 'Here a value might have been tried: low-current data, nothing that feeds, times or chooses.',
  'rightly not guessed': 'Rightly not guessed.',
  'never guessed': 'A value was tried where none may be: that is what kills a board. No points.',
}

/** A board with one small part gone: read its pads, as few readings as it needs, and say what it was, or that nobody may guess. */
export function WhatWasItPractice() {
  const [seed, setSeed] = useState(FIRST_SEED)
  const [asked, setAsked] = useState<ReadonlySet<PadRead>>(new Set())
  const [role, setRole] = useState<Role | ''>('')
  const [value, setValue] = useState('')
  const [error, setError] = useState<{ field: 'role' | 'value'; text: string } | null>(null)
  const [result, setResult] = useState<PartPracticeResult | null>(null)
  const [scores, setScores] = useState<readonly number[]>([])
  const truth = useMemo(() => boardWithPartGone(seed), [seed])
  const part = asRead(truth.part, asked)

  const begin = (next: number) => {
    setSeed(next)
    setAsked(new Set())
    setRole('')
    setValue('')
    setError(null)
    setResult(null)
  }
  const say = (guess: boolean) => {
    if (role === '') return setError({ field: 'role', text: 'what did it do?' })
    const ohm = guess ? readValue('resistor', value) : null
    if (guess && ohm === null) return setError({ field: 'value', text: 'ohms, like 33 or 4k7' })
    setError(null)
    const is = scorePart(truth, asked, { role, ohm })
    setResult(is)
    setScores([...scores, is.score])
  }
  return (
    <>
      <h1>What was it?</h1>
      <p className="mt-0.5 max-w-[46rem] text-soft">
        A small part is gone, its pads {truth.part.padsMm} mm apart, middle to middle. Read them, board
        unplugged, and say what it was. One reading in twenty is a slip. Nothing here touches the record.{' '}
        <Link href="/practice" className="underline">
          Boards to practise on
        </Link>
      </p>
      <div className="mt-4 grid grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)] gap-8">
        <div className="grid grid-cols-2 gap-6">
          {pads.map((pad) => (
            <section key={pad} aria-label={`Pad ${pad.toUpperCase()}`}>
              <h2 className="border-b-2 border-ink pb-1">Pad {pad.toUpperCase()}</h2>
              <div className="mt-2 flex flex-col gap-1.5">
                {readKinds.map((of) => (
                  <Button
                    key={of}
                    disabled={result !== null || asked.has(`${pad} ${of}`)}
                    onClick={() => setAsked(new Set<PadRead>([...asked, `${pad} ${of}`]))}
                  >
                    {readWords[of]} <span className="num ml-3 font-normal text-soft">{reads[of]} min</span>
                  </Button>
                ))}
              </div>
              <ul className="mt-2" aria-label={`Read of pad ${pad.toUpperCase()}`} aria-live="polite">
                {readingsOf(part[pad]).map((r) => (
                  <li key={r.what} className="num border-b border-line py-0.5">
                    {r.what}
                  </li>
                ))}
                {asked.has(`${pad} pins`) && (part[pad].pins ?? []).length === 0 && (
                  <li className="border-b border-line py-0.5">beeps to no pin nearby</li>
                )}
              </ul>
            </section>
          ))}
        </div>
        <div>
          <form
            className="flex flex-col gap-3"
            onSubmit={(e) => {
              e.preventDefault()
              if (result) begin(anySeed())
              else say(value.trim() !== '')
            }}
          >
            <SelectField
              label="What it did"
              value={role}
              disabled={result !== null}
              error={error?.field === 'role' ? error.text : undefined}
              onChange={(e) => setRole(e.target.value as Role | '')}
            >
              <option value="">choose</option>
              {roles.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </SelectField>
            <TextField
              label="Value to try, Ω"
              hint="Left empty: nobody guesses this one."
              className="num"
              value={value}
              disabled={result !== null}
              error={error?.field === 'value' ? error.text : undefined}
              onChange={(e) => setValue(e.target.value)}
            />
            <div className="flex flex-wrap gap-2">
              {result ? (
                <>
                  <Button look="first" type="submit">
                    Another
                  </Button>
                  <Button type="button" onClick={() => begin(seed)}>
                    The same again
                  </Button>
                </>
              ) : (
                <Button look="first" type="submit">
                  That is what it was
                </Button>
              )}
            </div>
          </form>
          <p role="status" className="mt-3 text-lg">
            {result &&
              `${result.rightRole ? 'Right' : 'Not so'}: ${truth.role}${truth.ohm === null ? '' : `, ${sayValue('resistor', truth.ohm)}`}. ${valueSays[result.value]}`}
          </p>
          {result && (
            <p className="mt-1 text-soft">
              The bench, by the same readings:{' '}
              {result.bench.roles
                .slice(0, 3)
                .map((r) => `${r.role} ${percent(r.odds)}`)
                .join(', ')}
              .{' '}
              {result.leastMinutes === null
                ? 'With these pads nothing makes it sure.'
                : `It can be sure after ${result.leastMinutes} min of readings.`}
            </p>
          )}
          <PracticeFigures
            figures={[
              ['read', `${minutesOf(asked)} min`],
              ['score', result ? String(result.score) : '–'],
              ['mean of this sitting', meanOf(scores, ['part', 'parts'])],
            ]}
          />
        </div>
      </div>
      <div className="mt-4">
        <Caution>
          Power, feedback, straps, resets and clocks are never guessed: look them up or measure a twin.
        </Caution>
      </div>
    </>
  )
}
