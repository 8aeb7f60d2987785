'use client'
import { useForm } from 'react-hook-form'
import Link from 'next/link'
import { percent } from '@/core/maths/percent'
import { useEffect, useState } from 'react'
import { isDamage } from '@/core/socket/damage/mark'
import { MOST_ONE_BY_ONE, worthShare } from '@/core/socket/straighten/reckon'
import type { Reckoning, ToGiveBack } from '@/core/socket/straighten/reckon'
import { replacementWays } from '@/core/socket/replace/replacement'
import type { GivenBack } from '@/core/socket/replace/replacement'
import { neighboursOf } from '@/core/socket/model/walk'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { ChoiceField } from '@/ui/ChoiceField'
import { SelectField, TextField } from '@/ui/Field'
import { useReader } from '@/ui/reader'
import type { Surface } from '@/stations/socket/map/use-surface'

const ways = ['stub raise', 'transplant', 'whole socket'] as const

/** Contacts that are gone: what can be done about them, compared by odds, hours and money; and what was done. */
export function Replace({
  surface,
  reckoning,
  giveBack,
}: {
  surface: Surface
  reckoning: Reckoning | null
  giveBack: (asked: ToGiveBack) => Promise<GivenBack[] | null>
}) {
  const { money, number, readMoney } = useReader()
  /** A price that was typed; null while it is none. */
  const priceIn = (text: string) => {
    const minor = readMoney(text)
    return minor === null || Number.isNaN(minor) ? null : minor
  }
  const wrongPrice = (text: string) =>
    Number.isNaN(readMoney(text)) ? 'An amount, such as 450 or 450.50' : undefined
  const donors = useJob((j) => j.donors)
  const replaced = useJob((j) => j.state.socket.replaced)
  const figures = useJob((j) => j.setting.figures)
  const boardMinor = useJob((j) => j.state.intake.ticket.valueMinor) ?? figures.boardMinor
  const [socketPrice, setSocketPrice] = useState('')
  const [boardPrice, setBoardPrice] = useState('')
  const { marks } = surface
  const back = useGiveBack(surface, boardMinor, giveBack)
  const wanted = back?.filter((g) => g.worthIt).map((g) => g.contact)
  const of = (kind: string) =>
    Object.entries(marks).filter(
      ([name, m]) => m.kind === kind && !m.unsure && (!wanted?.length || wanted.includes(name)),
    ).length
  const [stubs, gone] = [of('tip gone'), of('snapped')]
  const all = Object.values(marks).filter((m) => m.kind === 'tip gone' || m.kind === 'snapped').length
  if (!reckoning) return <p className="text-soft">Calculating…</p>
  const { now, then } = reckoning
  const compared = replacementWays(
    {
      stubs,
      gone,
      runsNow: worthShare(then, figures.withALoss),
      runsMended: Math.max(worthShare(then, figures.withALoss), figures.mended),
      boardMinor,
      donorContacts: donors.reduce((sum, d) => sum + d.left, 0),
      socketMinor: priceIn(socketPrice),
      exchangeMinor: priceIn(boardPrice),
    },
    figures,
  )
  return (
    <div className="grid @3xl:grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)] gap-x-8">
      <section>
        <h3 className="font-semibold">
          {stubs + gone === 0
            ? 'No contact is gone'
            : `${gone} snapped off, ${stubs} without a tip: what it would take${all > MOST_ONE_BY_ONE ? ' all together' : ''}`}
        </h3>
        <p className="text-soft">
          Taken that the rest of the order goes well; it runs as it stands in{' '}
          {now.known ? `${percent(now.runs)}` : 'odds not known: not enough of it is inspected'}. The shop’s
          hour counts {money(figures.hourMinor)}, the board {money(boardMinor)}; one that runs with a function
          lost counts {figures.withALoss} of it.{' '}
          <Link href="/library/bench" className="underline decoration-line underline-offset-4">
            Shop figures
          </Link>
        </p>
        {back && back.length > 0 && <OneByOne back={back} surface={surface} />}
        {stubs + gone > 0 && (
          <table className="mt-1 w-full" aria-label="Ways to replace">
            <thead>
              <tr>
                <th>Way</th>
                <th>Good after</th>
                <th>Minutes</th>
                <th>Costs</th>
                <th>Worth</th>
              </tr>
            </thead>
            <tbody>
              {compared.map((w, i) => (
                <tr key={w.way} className={w.not ? 'text-soft' : ''}>
                  <td>
                    <b className={i === 0 ? 'font-semibold text-brass' : 'font-semibold'}>{w.way}</b>
                    <span className="block text-[0.88rem] text-soft">
                      {w.not ?? w.note}
                      {w.harms > 0.005 && !w.not && `; harms a good neighbour in ${percent(w.harms)}`}
                    </span>
                  </td>
                  <td className="num whitespace-nowrap">{w.not ? '–' : percent(w.odds)}</td>
                  <td className="num whitespace-nowrap">{w.not ? '–' : Math.round(w.minutes)}</td>
                  <td className="num whitespace-nowrap">{w.not ? '–' : money(w.moneyMinor)}</td>
                  <td className="num whitespace-nowrap">
                    {w.not ? '–' : money(100 * Math.round(w.worthMinor / 100))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <div className="mt-2 grid max-w-lg grid-cols-2 gap-4">
          <TextField
            label="A whole socket costs"
            hint="empty: none, or no equipment"
            inputMode="decimal"
            value={socketPrice}
            error={wrongPrice(socketPrice)}
            onChange={(e) => setSocketPrice(e.target.value)}
          />
          <TextField
            label="Another board costs"
            hint="empty: none to be had"
            inputMode="decimal"
            value={boardPrice}
            error={wrongPrice(boardPrice)}
            onChange={(e) => setBoardPrice(e.target.value)}
          />
        </div>
        <div className="mt-2">
          <Caution>
            Hot air near the housing: fume extraction, eye protection, nothing flammable; unplugged and
            discharged.
          </Caution>
        </div>
      </section>
      <section>
        <NoteReplaced key={surface.cursor} surface={surface} />
        <ul className="mt-2">
          {replaced.map((r) => (
            <li key={r.seq} className="border-b border-line py-1">
              <span className="num">{r.contact}</span> {r.how}
              {r.donor && ` from ${r.donor}`}, {r.holds ? 'it holds' : 'it does not hold'}
            </li>
          ))}
        </ul>
        <h3 className="mt-3 font-semibold">Donors</h3>
        {donors.length === 0 && <p className="text-soft">None of this socket is on the shelf.</p>}
        <ul>
          {donors.map((d) => (
            <li key={d.name}>
              {d.name}: <span className="num">{number(d.left)}</span> contacts left
            </li>
          ))}
        </ul>
      </section>
    </div>
  )
}

/** Which contacts that are gone are worth giving back, told by the worker; null until it has, or for too many. */
function useGiveBack(
  { marks, pass }: Surface,
  boardMinor: number,
  giveBack: (asked: ToGiveBack) => Promise<GivenBack[] | null>,
): readonly GivenBack[] | null {
  const figures = useJob((j) => j.setting.figures)
  const [told, setTold] = useState<{ of: Surface['marks']; back: GivenBack[] | null } | null>(null)
  useEffect(() => {
    let here = true
    void giveBack({ marks, looked: Object.keys(pass?.looked ?? {}), boardMinor, figures }).then(
      (back) => here && setTold({ of: marks, back }),
    )
    return () => {
      here = false
    }
  }, [marks, pass, boardMinor, figures, giveBack])
  return told?.of === marks ? told.back : null
}

/** The contacts that are gone, each with what leaving it would cost. */
function OneByOne({ back, surface }: { back: readonly GivenBack[]; surface: Surface }) {
  const left = back.filter((g) => !g.worthIt).length
  const sentences =
    left === 0
      ? 'Each of them is worth giving back.'
      : left === back.length
        ? 'None of them is worth the heat: leave them.'
        : `${back.length - left} are worth giving back, ${left} can be left.`
  return (
    <>
      <p className="mt-2 font-semibold">{sentences}</p>
      <ul aria-label="One by one" className="mt-1">
        {back.map((g) => (
          <li key={g.contact} className="flex items-baseline gap-3 border-b border-line py-0.5">
            <button
              type="button"
              className="num w-14 text-left underline"
              onClick={() => surface.go(g.contact)}
            >
              {g.contact}
            </button>
            <span className={g.worthIt ? 'w-24 font-semibold' : 'w-24 text-soft'}>
              {g.worthIt ? g.way : 'leave it'}
            </span>
            <span className="text-soft">left, it costs {percent(g.costsLeft)} of the board’s worth</span>
          </li>
        ))}
      </ul>
    </>
  )
}

interface ReplacedForm {
  how: (typeof ways)[number]
  holds: 'holds' | 'does not'
  out: string[]
  donor: string
}

/** What was done about the contact under the needle, and which good neighbours came out with it. */
function NoteReplaced({ surface }: { surface: Surface }) {
  const { cursor, marks, socket } = surface
  const donors = useJob((j) => j.donors)
  const append = useJob((j) => j.append)
  const { register, control, handleSubmit, watch } = useForm<ReplacedForm>({
    defaultValues: {
      how: marks[cursor]?.kind === 'tip gone' ? 'stub raise' : 'transplant',
      holds: 'holds',
      out: [],
      donor: donors[0]?.name ?? '',
    },
  })
  const how = watch('how')
  if (!isDamage(marks[cursor]))
    return <p className="text-soft">Put the needle on a contact that was replaced to note it.</p>
  const keep = handleSubmit(({ holds, out, donor }) => {
    append('replaced', {
      contact: cursor,
      how,
      holds: holds === 'holds',
      pulledOut: out,
      ...(how === 'transplant' && donor ? { donor } : {}),
    })
  })
  return (
    <form className="flex flex-col gap-2" onSubmit={keep}>
      <h3 className="font-semibold">
        <span className="num">{cursor}</span> was replaced
      </h3>
      <ChoiceField label="How" control={control} name="how" options={ways} />
      {how === 'transplant' && donors.length > 0 && (
        <SelectField label="From" {...register('donor')}>
          {donors.map((d) => (
            <option key={d.name}>{d.name}</option>
          ))}
        </SelectField>
      )}
      <ChoiceField label="It" control={control} name="holds" options={['holds', 'does not']} />
      <fieldset>
        <legend className="text-[0.94rem] text-soft">Came out with it</legend>
        <span className="flex flex-wrap gap-x-3">
          {neighboursOf(socket, cursor).map((name) => (
            <label key={name} className="flex items-center gap-1">
              <input type="checkbox" value={name} {...register('out')} />
              <span className="num">{name}</span>
            </label>
          ))}
        </span>
      </fieldset>
      <Button type="submit" className="self-start">
        Note it
      </Button>
    </form>
  )
}
