'use client'
import { useMemo, useState } from 'react'
import { goingOn } from '@/core/job/going-on'
import { percent } from '@/core/maths/percent'
import { decide, instrumentsFor, sayDecided } from '@/core/shop/decide'
import type { Other } from '@/core/shop/decide'
import { opinionFor } from '@/core/shop/second-opinion'
import { lowerFirst, upperFirst } from '@/core/sentence'
import { runsAsItIs } from '@/core/triage/next-step'
import { benchSeconds } from '@/core/work/slice'
import { useAdvice } from '@/job/AdviceProvider'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { Sheet } from '@/ui/Sheet'
import { useReader } from '@/ui/reader'
import { typedNumber } from '@/ui/typed-number'
import { useWorthTyped } from './use-worth-typed'
import type { Instead, TypedOther } from './use-worth-typed'

const elsewhere = [
  ['board', 'another board'],
  ['out', 'sending it out'],
  ['maker', 'the maker’s repair'],
] as const
/** Days that each takes (bench defaults). */
const usualDays = { board: 3, out: 10, maker: 21 }
const noOther = { price: '', chance: '', days: '' }

/** Go on, exchange, send out or hand back: what each is worth to the owner, and the minute to stop at. */
export function WorthIt({ open, onClose, onAsk }: { open: boolean; onClose: () => void; onAsk: () => void }) {
  return (
    <Sheet open={open} title="Is it worth going on?" onClose={onClose} wide>
      {open && <Weighed onClose={onClose} onAsk={onAsk} />}
    </Sheet>
  )
}

function Weighed({ onClose, onAsk }: { onClose: () => void; onAsk: () => void }) {
  const { belief, fresh, failed } = useAdvice()
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const setting = useJob((j) => j.setting)
  const { ticket } = state.intake
  const { work, board } = state
  const { figures } = setting
  const took = useJob((j) => j.learned.goingOn)
  const { done } = state.handBack
  const append = useJob((j) => j.append)
  const { currency, money, readMoney } = useReader()
  const asMoney = (minor: number | null) => (minor === null ? '' : String(minor / 100))
  const { all, weighed: ways } = useMemo(
    () => goingOn(state, socket, setting, took.factor),
    [state, socket, setting, took.factor],
  )
  const [kept, keep] = useWorthTyped(useJob((j) => j.tag))
  const { donor = '' } = kept
  const [value, setValue] = useState(asMoney(ticket.valueMinor))
  const [rate, setRate] = useState(asMoney(figures.hourMinor))
  const makers = ticket.warranty === 'in warranty' || ticket.warranty === 'paid repair offered'
  const typed: Readonly<Record<Instead, TypedOther>> = {
    board: noOther,
    out: noOther,
    // In warranty it costs nothing.
    maker: { ...noOther, price: ticket.warranty === 'in warranty' ? '0' : '' },
    ...kept,
  }
  const [now] = useState(() => new Date().toISOString())

  /** How often each works out, %: sent out and by its maker as bench defaults. */
  const usualChance = { board: Math.round(100 * figures.exchangeHolds), out: 80, maker: 90 }

  const errors: Record<string, string> = {}
  const amount = (field: string, text: string): number => {
    const is = readMoney(text)
    if (is === null || Number.isNaN(is)) errors[field] = 'an amount, like 450 or 450,50'
    return is ?? 0
  }
  const isWorthSaid = value.trim() !== ''
  const valueMinor = isWorthSaid ? amount('value', value) : 0
  const ratePerHourMinor = amount('rate', rate)
  if (!errors.rate && ratePerHourMinor === 0) errors.rate = 'an hour costs something'
  const others = elsewhere.flatMap(([id, name]): Other[] => {
    const { price, chance, days } = typed[id]
    if (price.trim() === '') return []
    const share = chance.trim() === '' ? usualChance[id] : typedNumber(chance)
    const takes = days.trim() === '' ? usualDays[id] : typedNumber(days)
    if (!(share >= 0 && share <= 100)) errors[`${id} chance`] = '0 to 100 %'
    if (!(takes >= 0 && takes <= 365)) errors[`${id} days`] = '0 to 365 days'
    return [
      {
        name,
        priceMinor: amount(`${id} price`, price),
        succeeds: share / 100,
        days: Math.round(takes),
        leavesBoard: id === 'board',
      },
    ]
  })
  const donorMinor = donor.trim() === '' ? 0 : amount('donor', donor)
  const spentMinutes = benchSeconds(work, now).all / 60
  const runs = belief !== null && runsAsItIs(board, belief)
  const weighed =
    belief && !runs && !done && isWorthSaid && Object.keys(errors).length === 0
      ? {
          ...ways,
          valueMinor,
          ratePerHourMinor,
          spentMinutes,
          limitMinor: ticket.limitMinor,
          donorMinor,
          others,
        }
      : null
  const decided = weighed && decide(weighed)
  const instruments = weighed && belief ? instrumentsFor(weighed, belief, took.factor) : []
  const opinion =
    weighed && belief ? opinionFor(weighed, { causes: all, made: belief.made }, took.factor) : null
  const say = decided && sayDecided(decided, money)
  const instead = decided?.options.find((o) => o.is !== 'go on' && o.worthMinor > 0)?.name
  const field = (id: Instead, key: keyof typeof noOther, label: string, usual: string) => (
    <TextField
      label={label}
      className="num"
      inputMode="decimal"
      value={typed[id][key]}
      placeholder={usual}
      error={errors[`${id} ${key}`]}
      onChange={(e) => keep({ [id]: { ...typed[id], [key]: e.target.value } })}
    />
  )
  return (
    <div>
      <div className="grid grid-cols-3 gap-3">
        <TextField
          label={`Worth to its owner, ${currency}`}
          className="num"
          inputMode="decimal"
          value={value}
          error={errors.value}
          onChange={(e) => setValue(e.target.value)}
        />
        <TextField
          label={`An hour here, ${currency}`}
          className="num"
          inputMode="decimal"
          value={rate}
          error={errors.rate}
          onChange={(e) => setRate(e.target.value)}
        />
        <p className="self-end pb-2 text-soft">
          {ticket.limitMinor === null
            ? 'No limit is agreed.'
            : `Agreed: at most ${money(ticket.limitMinor)}.`}{' '}
          {Math.round(spentMinutes)} min are on it.
        </p>
        {field('board', 'price', `Another board, ${currency}`, 'not considered')}
        {field('board', 'chance', 'It works out, %', String(usualChance.board))}
        {field('board', 'days', 'Days', String(usualDays.board))}
        {field('out', 'price', `Sending it out, ${currency}`, 'not considered')}
        {field('out', 'chance', 'It works out, %', String(usualChance.out))}
        {field('out', 'days', 'Days', String(usualDays.out))}
        {makers && (
          <>
            {field('maker', 'price', `The maker’s repair, ${currency}`, 'not considered')}
            {field('maker', 'chance', 'It works out, %', String(usualChance.maker))}
            {field('maker', 'days', 'Days', String(usualDays.maker))}
          </>
        )}
        <TextField
          label={`Left here as a donor, ${currency}`}
          className="num"
          inputMode="decimal"
          value={donor}
          placeholder="not bought"
          error={errors.donor}
          onChange={(e) => keep({ donor: e.target.value })}
        />
        <p className="col-span-2 self-end pb-2 text-soft">
          What it brings its owner as it is; beside another board as well.
        </p>
      </div>
      {done && <p className="mt-4 text-lg">The job stands as {done.outcome}: nothing is to be decided.</p>}
      {!belief && !done && (
        <p className="mt-4 text-soft">
          {failed
            ? 'Nothing is weighed: the odds were not calculated. Load the page again.'
            : fresh
              ? 'Nothing was seen of this board yet: measure, look and power it first.'
              : 'Calculating the odds…'}
        </p>
      )}
      {belief && !runs && !done && !isWorthSaid && (
        <p className="mt-4 text-lg">
          What is it worth to its owner that it runs? Ask them; without it nothing is weighed.
        </p>
      )}
      {runs && !done && <p className="mt-4 text-lg">It runs: prove it, and hand it back.</p>}
      {decided && say && (
        <section aria-label="What it comes to" className="mt-4 border-t-2 border-brass pt-3">
          <p className="text-lg">{say}</p>
          <table className="mt-3 w-full">
            <thead>
              <tr>
                <th>What is done</th>
                <th>By itself it runs</th>
                <th>Worth to the owner, less the price</th>
              </tr>
            </thead>
            <tbody>
              {decided.options.map((o, i) => (
                <tr key={o.name} className={i === 0 ? 'font-semibold' : ''}>
                  <td>
                    {o.is === 'go on'
                      ? `go on, ${decided.stopAfterMinutes} min at most${instead ? `, then ${instead}` : ''}`
                      : o.name}
                  </td>
                  <td className="num">{o.is === 'hand it back' ? '–' : percent(o.runs)}</td>
                  <td className="num">{money(Math.round(o.worthMinor / 100) * 100)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {decided.stopAfterMinutes > 0 && (
            <p className="mt-2 text-soft">
              Going on takes <span className="num">{Math.round(decided.goingOn.minutes.low)}</span> to{' '}
              <span className="num">{Math.round(decided.goingOn.minutes.high)}</span> min in eight of ten
              cases.
            </p>
          )}
          {instruments.length > 0 && (
            <section aria-label="One more instrument" className="mt-4 border-t border-line pt-2.5">
              <h3 className="font-semibold">What one more thing on the shelf would change</h3>
              <ul className="mt-1">
                {instruments.slice(0, 4).map((i) => (
                  <li key={i.item} className="border-b border-dashed border-line py-1 leading-snug">
                    <b className="font-semibold">{upperFirst(i.item)}</b>: {lowerFirst(i.say)}. It settles it
                    in {percent(i.settles)} (the best that can be done without it: {percent(i.without)});
                    about {Math.round(i.lookingMinutes)} min of looking are left then, not{' '}
                    {Math.round(i.lookingWithout)}.{' '}
                    {i.worthMinor >= 100
                      ? `Worth ${money(Math.round(i.worthMinor / 100) * 100)} to this job alone.`
                      : 'It changes nothing in money here.'}
                  </li>
                ))}
              </ul>
            </section>
          )}
          {opinion && (
            <section aria-label="A second opinion" className="mt-4 border-t border-line pt-2.5">
              <h3 className="font-semibold">A second opinion, with photos</h3>
              <p className="mt-1 leading-snug">
                It names what is there in {percent(opinion.names)}, takes {opinion.minutes} min to ask and
                about {opinion.days === 1 ? 'a day' : `${opinion.days} days`} to come.{' '}
                {opinion.lookingMinutes < opinion.lookingWithout
                  ? `About ${Math.round(opinion.lookingMinutes)} min of looking are left then, not ${Math.round(opinion.lookingWithout)}. ${
                      opinion.worthMinor >= 100
                        ? `Worth ${money(Math.round(opinion.worthMinor / 100) * 100)} to this job.`
                        : 'It changes nothing in money here.'
                    }`
                  : 'That saves no minutes here: little of what it may be shows on photos, or it was looked at already.'}{' '}
                <Button look="bare" onClick={onAsk}>
                  Ask
                </Button>
              </p>
            </section>
          )}
          <p className="mt-2 text-[0.9rem] text-soft">
            By what triage makes of the board now,{' '}
            {took.n > 0
              ? `minutes as they came true in ${took.n} ${took.n === 1 ? 'job' : 'jobs'} decided so`
              : 'usual minutes'}{' '}
            and how often repairs held here. What is spent already is spent either way; parts cost what the
            shop’s figures say.
          </p>
          <Button
            className="mt-3"
            onClick={() => {
              append('decision', {
                text: say.slice(0, 300),
                ...(decided.options[0]?.is === 'go on'
                  ? {
                      goingOn: {
                        minutes: decided.goingOn.minutes.middle,
                        spentMinutes,
                        runs: decided.goingOn.runs,
                      },
                    }
                  : {}),
              })
              onClose()
            }}
          >
            Note it as decided
          </Button>
        </section>
      )}
    </div>
  )
}
