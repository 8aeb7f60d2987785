'use client'
import { useState } from 'react'
import type { InputHTMLAttributes } from 'react'
import { pullResults, sayPulls } from '@/core/parts/heat/pulls'
import { lastIron } from '@/core/job/last-iron'
import { photoOwed } from '@/core/parts/before-iron'
import { solders, targets } from '@/core/parts/heat/set-up'
import { useJob } from '@/job/JobProvider'
import { typedNumber } from '@/ui/typed-number'
import { Button } from '@/ui/Button'
import { Cell } from '@/ui/Cell'
import { Choice } from '@/ui/Choice'
import { SelectField, TextField } from '@/ui/Field'
import { noSpared, noStep } from './typed-heat'
import type { TypedSpared, TypedStep } from './typed-heat'
import type { HeatInHand } from './use-heat'

const places = ['joint', 'board', 'body'] as const

/** What is heated, with what, and how it goes on; a thermocouple’s readings. */
export function HeatForm({ heat, onPhotos }: { heat: HeatInHand; onPhotos: () => void }) {
  const owed = useJob((j) => photoOwed(j.state.work.photos, lastIron(j.state)))
  const { typed, change, read, fresh, isKept, share } = heat
  const { errors } = read
  const field = (
    key: 'ref' | 'wideMm' | 'highMm' | 'layers' | 'nozzleMm' | 'distanceMm' | 'roomC' | 'mostAirC',
    label: string,
    placeholder = '',
  ) => (
    <TextField
      label={label}
      className="num"
      value={typed[key]}
      placeholder={placeholder}
      error={errors[key]}
      onChange={(e) => change({ [key]: e.target.value })}
    />
  )
  const setStep = (i: number, to: Partial<TypedStep>) =>
    change({
      steps: [...typed.steps, noStep]
        .map((step, k) => (k === i ? { ...step, ...to } : step))
        .filter((s) => s.seconds.trim() || s.airC.trim() || s.flow.trim() || s.preheat.trim()),
    })
  const setSpared = (i: number, to: Partial<TypedSpared>) =>
    change({
      spared: [...typed.spared, noSpared]
        .map((one, k) => (k === i ? { ...one, ...to } : one))
        .filter((s) => s.what.trim() || s.atMm.trim() || s.bearsC.trim()),
    })
  return (
    <div className="pb-4">
      {owed && (
        <p className="mb-2 border-l-4 border-brass pl-3">
          {owed}:{' '}
          <button type="button" className="underline underline-offset-4" onClick={onPhotos}>
            take one before the iron
          </button>
          . Compared afterwards, it shows what went missing. Look at the iron’s tip as well: small parts stick
          to it.
        </p>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault()
          heat.keep()
        }}
      >
        <div className="sticky top-0 z-10 mb-2 flex flex-wrap items-center gap-3 border-b border-line bg-sheet pb-2">
          {share === null ? (
            <Button onClick={heat.search} disabled={!read.setUp || !read.atHand}>
              Find a recipe
            </Button>
          ) : (
            <>
              <progress
                aria-label="Searching a recipe"
                value={share}
                max={1}
                className="h-3 w-40 accent-[var(--brass)]"
              />
              <Button onClick={heat.stop}>Cancel</Button>
            </>
          )}
          <Button type="submit" look="first" disabled={!fresh || isKept}>
            {isKept ? 'Kept' : 'Keep this recipe'}
          </Button>
        </div>
        {heat.sought && heat.sought.best === null && (
          <p role="alert" className="mt-2 font-semibold text-ember">
            Nothing at hand melts the joint. Try it with a larger nozzle, hotter air or a preheater.
          </p>
        )}
        <div className="grid grid-cols-[1.7fr_1fr_1fr_1fr] gap-x-3 gap-y-2">
          <SelectField
            label="What is heated"
            value={typed.target}
            onChange={(e) => change({ target: targets.find((t) => t === e.target.value)! })}
          >
            {targets.map((t) => (
              <option key={t}>{t}</option>
            ))}
          </SelectField>
          {field('ref', 'Its name', 'U7')}
          {field('nozzleMm', 'Nozzle, mm')}
          {field('distanceMm', 'Distance, mm')}
          {field('wideMm', 'Board, mm')}
          {field('highMm', 'by')}
          {field('layers', 'Layers', '4')}
          {field('roomC', 'Room, °C')}
        </div>
        <div className="mt-2">
          <Choice
            label="Solder"
            value={typed.solder}
            options={solders}
            onChange={(solder) => change({ solder })}
          />
        </div>
        <h2 className="mt-3 font-semibold">At hand</h2>
        <div className="grid grid-cols-[1.5fr_1fr_1fr_1.3fr] gap-x-3">
          <TextField
            label="Nozzles, mm"
            className="num"
            value={typed.nozzles}
            error={errors.nozzles}
            onChange={(e) => change({ nozzles: e.target.value })}
          />
          {field('mostAirC', 'Air to, °C')}
          <TextField
            label="Flows, l/min"
            className="num"
            value={typed.flows}
            error={errors.flows}
            onChange={(e) => change({ flows: e.target.value })}
          />
          <TextField
            label="Preheat, W/cm²"
            className="num"
            value={typed.mostPreheat}
            placeholder="none"
            error={errors.mostPreheat}
            onChange={(e) => change({ mostPreheat: e.target.value })}
          />
        </div>
        <h2 className="mt-3 font-semibold">Steps</h2>
        <div className="grid grid-cols-[1.4rem_repeat(4,minmax(0,1fr))] items-start gap-x-2 gap-y-1">
          <span />
          {['seconds', 'air, °C', 'l/min', 'preheat, W/cm²'].map((head) => (
            <span key={head} className="text-[0.88rem] text-soft">
              {head}
            </span>
          ))}
          {[...typed.steps, noStep].map((step, i) => (
            <Row
              key={i}
              n={i + 1}
              name="Step"
              cells={(
                [
                  ['seconds', 'seconds'],
                  ['airC', 'air, °C'],
                  ['flow', 'l/min'],
                  ['preheat', 'preheat, W/cm²'],
                ] as const
              ).map(([key, label]) => ({
                label,
                value: step[key],
                error: errors[`step ${i} ${key}`],
                onChange: (e) => setStep(i, { [key]: e.target.value }),
              }))}
            />
          ))}
        </div>
        <h2 className="mt-3 font-semibold">To be spared</h2>
        <div className="grid grid-cols-[1.4rem_minmax(0,2fr)_repeat(2,minmax(0,1fr))] items-start gap-x-2 gap-y-1">
          <span />
          {['what', 'mm away', 'bears, °C'].map((head) => (
            <span key={head} className="text-[0.88rem] text-soft">
              {head}
            </span>
          ))}
          {[...typed.spared, noSpared].map((one, i) => (
            <Row
              key={i}
              n={i + 1}
              name="Spared"
              cells={(
                [
                  ['what', 'what'],
                  ['atMm', 'mm from the middle'],
                  ['bearsC', 'bears, °C'],
                ] as const
              ).map(([key, label]) => ({
                label,
                value: one[key],
                placeholder: i === typed.spared.length && key === 'what' ? 'card slot' : '',
                error: errors[`spared ${i} ${key}`],
                onChange: (e) => setSpared(i, { [key]: e.target.value }),
              }))}
            />
          ))}
        </div>
      </form>
      {typed.target === 'single contact' && <PracticePulls />}
      <Thermocouple heat={heat} />
    </div>
  )
}

/** Contacts pulled from a donor socket with this heat before the board’s own: each counted, one key each. */
function PracticePulls() {
  const pulls = useJob((j) => j.state.parts.pulls)
  const donors = useJob((j) => j.donors)
  const append = useJob((j) => j.append)
  const [chosen, setChosen] = useState<string | null>(null)
  const donor = chosen ?? donors[0]?.name
  return (
    <section aria-label="Practice pulls" className="mt-4 border-t border-line pt-3">
      <h2 className="font-semibold">Practice pulls from a donor</h2>
      <p aria-live="polite">{sayPulls(pulls)}</p>
      {donors.length > 0 && (
        <SelectField label="From" value={donor} onChange={(e) => setChosen(e.target.value)}>
          {donors.map((d) => (
            <option key={d.name} value={d.name}>
              {d.name}, {d.left} left
            </option>
          ))}
        </SelectField>
      )}
      <div className="mt-2 flex gap-2">
        {pullResults.map((came) => (
          <Button key={came} onClick={() => append('pull', { came, ...(donor ? { donor } : {}) })}>
            Came {came}
          </Button>
        ))}
      </div>
    </section>
  )
}

/** Readings while the kept recipe runs, and what they say of air and preheater. */
function Thermocouple({ heat: { kept, fit, readAt } }: { heat: HeatInHand }) {
  const [at, setAt] = useState<(typeof places)[number]>('board')
  const [typed, setTyped] = useState({ s: '', c: '' })
  const [tried, setTried] = useState(false)
  const [s, c] = [typedNumber(typed.s), typedNumber(typed.c)]
  const wrong = {
    s: s >= 0 && s <= 36_000 ? undefined : 'seconds since it began',
    c: c >= -50 && c <= 1000 ? undefined : '°C, like 112',
  }
  const times = (by: number, within: number) =>
    `${by.toFixed(2)} times what was reckoned (${(by / within).toFixed(2)} to ${(by * within).toFixed(2)})`
  return (
    <form
      className="mt-4 border-t border-line pt-3"
      onSubmit={(e) => {
        e.preventDefault()
        setTried(true)
        if (wrong.s || wrong.c) return
        readAt({ at, s, c })
        setTyped({ s: '', c: '' })
        setTried(false)
      }}
    >
      <h2 className="font-semibold">Thermocouple</h2>
      {kept === null ? (
        <p className="text-soft">Keep a recipe first; what is read while it runs corrects the next.</p>
      ) : (
        <>
          <Choice label="It is on the" value={at} options={places} onChange={setAt} wide />
          <div className="mt-1 grid grid-cols-[1fr_1fr_auto] items-end gap-3">
            <TextField
              label="At, s"
              className="num"
              value={typed.s}
              error={tried ? wrong.s : undefined}
              onChange={(e) => setTyped({ ...typed, s: e.target.value })}
            />
            <TextField
              label="Reads, °C"
              className="num"
              value={typed.c}
              error={tried ? wrong.c : undefined}
              onChange={(e) => setTyped({ ...typed, c: e.target.value })}
            />
            <Button type="submit">Note it</Button>
          </div>
          {fit && (
            <div aria-live="polite" className="mt-2">
              <p>
                Air gives {times(fit.air, fit.airWithin)}; the preheater{' '}
                {times(fit.preheater, fit.preheaterWithin)}. The curves count with it.
              </p>
              {fit.open.map((open) => (
                <p key={open} className="text-soft">
                  {open}
                </p>
              ))}
            </div>
          )}
        </>
      )}
    </form>
  )
}

function Row({
  n,
  name,
  cells,
}: {
  n: number
  name: string
  cells: readonly (InputHTMLAttributes<HTMLInputElement> & { label: string; error?: string })[]
}) {
  return (
    <>
      <span className="num self-center text-soft">{n}</span>
      {cells.map(({ label, error, ...rest }) => (
        <Cell key={label} aria-label={`${name} ${n}: ${label}`} error={error} {...rest} />
      ))}
    </>
  )
}
