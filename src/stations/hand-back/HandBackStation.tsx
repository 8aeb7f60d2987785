'use client'
import { useForm } from 'react-hook-form'
import type { Outcome } from '@/core/hand-back/bodies'
import { outcomes } from '@/core/hand-back/bodies'

import { useState } from 'react'
import { speaksAgainst } from '@/core/job/asks-first'
import { handBackBlockers } from '@/core/job/stations-say'
import { useJob } from '@/job/JobProvider'
import { StationLink } from '@/frame/StationLink'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { Against } from '@/ui/Against'
import { Button } from '@/ui/Button'
import { OneLine } from '@/ui/OneLine'
import { SelectField, TextArea, TextField } from '@/ui/Field'
import { useReader } from '@/ui/reader'
import { SheetPage } from './SheetPage'

/** The sheet as the owner will read it, and what is needed to hand it over. */
export function HandBackStation() {
  const handedBack = useJob(
    (j) => j.state.handBack.done !== null && j.state.handBack.done.outcome !== 'parked',
  )
  return (
    <StationSurface station="hand-back">
      <div className="grid gap-x-6 lg:h-full lg:min-h-0 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_16rem] print:block">
        <Pane label="The sheet" className="pt-2 print:overflow-visible">
          <SheetPage />
        </Pane>
        <Pane className="no-print">
          <Holds />
          <Away />
          {handedBack ? (
            <Later />
          ) : (
            <>
              <HandOver />
              <Advice />
            </>
          )}
        </Pane>
      </div>
    </StationSurface>
  )
}

function Holds() {
  const state = useJob((j) => j.state)
  const blockers = handBackBlockers(state)
  if (blockers.length === 0 || state.handBack.done) return null
  return (
    <ul className="mt-2 border-l-4 border-ember pl-3" aria-label="What holds the hand-back">
      {blockers.map((hold) => (
        <li key={hold.text}>
          <StationLink
            to={hold.at.station}
            part={hold.at.part}
            className="underline decoration-line underline-offset-4"
          >
            {hold.text}
          </StationLink>
        </li>
      ))}
    </ul>
  )
}

const outcomeWords: Readonly<Record<Outcome, string>> = {
  fixed: 'fixed',
  exchanged: 'exchanged for another board',
  parked: 'parked, stays on the bench',
  'sent out': 'sent out',
  'returned unrepaired': 'returned, not repaired',
  'returned untested': 'returned, not tested',
  withdrawn: 'withdrawn, begun by mistake',
}

interface HandOverForm {
  outcome: Outcome
  price: string
  text: string
}

function HandOver() {
  const state = useJob((j) => j.state)
  const append = useJob((j) => j.append)
  const { currency, money, readMoney } = useReader()
  const { register, handleSubmit, watch, formState } = useForm<HandOverForm>({
    defaultValues: { outcome: 'fixed', price: '', text: '' },
  })
  const outcome = watch('outcome')
  const socket = useJob((j) => j.socket)
  const [asked, setAsked] = useState<readonly string[]>([])
  const held = handBackBlockers(state).length > 0 && outcome !== 'parked' && outcome !== 'withdrawn'
  const limit = state.intake.ticket.limitMinor
  const priceMinor = readMoney(watch('price'))
  const over = priceMinor !== null && limit !== null && priceMinor > limit
  const handOver = handleSubmit(({ outcome, price, text }) => {
    const body = { outcome, priceMinor: readMoney(price), text: text.trim() }
    const against = speaksAgainst('hand-back', body, state, socket)
    if (against.join('\n') !== asked.join('\n')) return setAsked(against)
    append('hand-back', { ...body, ...(against.length > 0 ? { despite: against } : {}) })
  })
  return (
    <form className="flex flex-col gap-3 border-t border-line pt-2.5 pb-4" onSubmit={handOver}>
      <h2>Hand it over</h2>
      <SelectField label="As" {...register('outcome', { onChange: () => setAsked([]) })}>
        {outcomes.map((as) => (
          <option key={as} value={as}>
            {outcomeWords[as]}
          </option>
        ))}
      </SelectField>
      <TextField
        label={`The bill, ${currency}`}
        {...register('price', {
          validate: (price) => !Number.isNaN(readMoney(price)) || 'An amount, like 450 or 450,50.',
        })}
        error={formState.errors.price?.message}
        hint={
          over
            ? `More than the ${money(limit)} agreed: change the offer first.`
            : limit === null
              ? undefined
              : `agreed: up to ${money(limit)}`
        }
        inputMode="decimal"
        className="num"
      />
      <TextArea label="Message to the owner" {...register('text')} />
      {asked.length > 0 && <Against what="this hand-back" against={asked} />}
      <Button type="submit" look="first" disabled={held}>
        {held ? 'Held' : asked.length > 0 ? 'Hand it back all the same' : 'Hand it back'}
      </Button>
    </form>
  )
}

function Advice() {
  const append = useJob((j) => j.append)
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>Advice for the sheet</h2>
      <OneLine
        label="Advice for the sheet"
        placeholder="lower the CPU straight down"
        keep="Put it on"
        wanted="What should the owner know? One sentence."
        onKeep={(text) => append('advice', { text })}
      />
    </section>
  )
}

/** The customer sometimes makes the last test at home. */
function Later() {
  const later = useJob((j) => j.state.handBack.lateOutcomes)
  const append = useJob((j) => j.append)
  const [text, setText] = useState('')
  const [empty, setEmpty] = useState(false)
  const say = (holds: boolean) => {
    setEmpty(!text.trim())
    if (!text.trim()) return
    append('late outcome', { text: text.trim(), holds })
    setText('')
  }
  return (
    <section className="flex flex-col gap-2 border-t border-line pt-2.5 pb-4">
      <h2>Owner’s feedback, later</h2>
      <ul>
        {later.map((l) => (
          <li key={l.seq} className="border-b border-dashed border-line py-1">
            {l.text}{' '}
            <span className={l.holds ? 'text-verd' : 'font-semibold text-ember'}>
              {l.holds ? 'it holds' : 'it came back'}
            </span>
          </li>
        ))}
      </ul>
      <TextField
        label="What they say"
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={empty ? 'What does the owner say? A few words.' : undefined}
        placeholder="runs since a week"
      />
      <div className="flex gap-2">
        <Button onClick={() => say(true)}>It holds</Button>
        <Button onClick={() => say(false)}>It does not</Button>
      </div>
    </section>
  )
}

/** What leaves the bench: the sheet on paper or as a file, the whole job as a ZIP. */
function Away() {
  const tag = useJob((j) => j.tag)
  const waits = useJob((j) => j.unsent.length > 0)
  const link = 'block py-1 underline decoration-line underline-offset-4'
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>Take it along</h2>
      {waits && <p className="text-soft">Lines that are not saved yet are not in the files.</p>}
      <a className={link} href={`/api/jobs/${tag}/sheet`} download>
        Sheet as PDF
      </a>
      <button type="button" className={link} onClick={() => window.print()}>
        Print the sheet
      </button>
      <a className={link} href={`/api/jobs/${tag}/zip`} download>
        Whole job as ZIP
      </a>
      <a className={link} href={`/api/jobs/${tag}/zip?owner=no`} download>
        ZIP without the owner
      </a>
    </section>
  )
}
