'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { FormEvent } from 'react'
import { benchFigures, figureFault, figureNames } from '@/core/socket/straighten/bench-figures'
import type { FigureName } from '@/core/socket/straighten/bench-figures'
import { Button } from '@/ui/Button'
import { readMoney, usualReader } from '@/core/reader'
import { useReader } from '@/ui/reader'

type Own = Readonly<Partial<Record<FigureName, number>>>
/** A figure as it stands in its field. */
const plain = (name: FigureName, value: number): string =>
  String(benchFigures[name].unit === 'money' ? value / 100 : value)
/** What was typed, in the figure's own unit; null when empty, NaN when it is no number. */
function read(name: FigureName, text: string, currency: string): number | null {
  if (benchFigures[name].unit === 'money') return readMoney({ currency }, text)
  const typed = text.trim().replace(',', '.')
  return typed === '' ? null : Number(typed)
}

/** What costs, minutes and odds the bench reckons with; the shop's own stand over the bench defaults. */
export function BenchSheet({ own }: { own: Own }) {
  const router = useRouter()
  const { currency, money } = useReader()
  const [word, setWord] = useState<string | null>(null)
  const units = { money: currency, minutes: 'min', share: 'of 1' } as const
  const [typed, setTyped] = useState<Partial<Record<FigureName, string>>>({})
  const [faults, setFaults] = useState<Partial<Record<FigureName | 'currency', string>>>({})
  const [said, setSaid] = useState('')
  const [busy, setBusy] = useState(false)
  const textOf = (name: FigureName) => typed[name] ?? (own[name] === undefined ? '' : plain(name, own[name]))
  const mine = Object.keys(own).length

  async function keep(figures: Own) {
    setBusy(true)
    setSaid('')
    try {
      const answer = await fetch('/api/figures', {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ figures, ...(word === null ? {} : { currency: word }) }),
      })
      if (answer.ok) {
        setTyped({})
        setWord(null)
        setSaid('Kept. It counts on every job from now on.')
        router.refresh()
      } else {
        const { error } = (await answer.json()) as { error: { field: string; text: string } }
        setFaults({ [error.field]: error.text })
      }
    } catch {
      setSaid('The server does not answer. What you entered stays here; try again in a moment.')
    }
    setBusy(false)
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const figures: Partial<Record<FigureName, number>> = {}
    const wrong: Partial<Record<FigureName, string>> = {}
    for (const name of figureNames) {
      const value = read(name, textOf(name), currency)
      if (value === null) continue
      const fault = figureFault(name, value)
      if (fault) wrong[name] = `It should be ${fault}.`
      else figures[name] = value
    }
    setFaults(wrong)
    setSaid('')
    if (Object.keys(wrong).length === 0) void keep(figures)
  }
  return (
    <form onSubmit={submit}>
      <div className="flex items-start justify-between gap-6">
        <div>
          <h1>Shop figures</h1>
          <p className="mt-0.5 max-w-[44rem] text-soft">
            {mine > 0
              ? `${mine} of ${figureNames.length} are this shop’s own; the rest are bench defaults.`
              : 'All are bench defaults. Set what is different here: leave or straighten, what to do about contacts that are gone, and whether going on is worth it, follow from it.'}
          </p>
        </div>
        <p className="flex shrink-0 items-center gap-3">
          <Button type="submit" look="first" disabled={busy}>
            Keep them
          </Button>
          {mine > 0 && (
            <Button look="bare" disabled={busy} onClick={() => void keep({})}>
              Back to the defaults
            </Button>
          )}
        </p>
      </div>
      <p role="status" className="mt-2 min-h-6 text-verd">
        {said}
      </p>
      <table className="w-full">
        <thead>
          <tr className="border-b-2 border-ink text-left">
            <th scope="col" className="py-1">
              What
            </th>
            <th scope="col" className="text-right">
              Bench default
            </th>
            <th scope="col" className="w-56 pl-6">
              Here
            </th>
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-dashed border-line">
            <td className="py-1">Currency, as it stands after an amount</td>
            <td className="num text-right text-soft">{usualReader.currency}</td>
            <td className="pl-6">
              <input
                aria-label="currency"
                aria-invalid={faults.currency ? true : undefined}
                aria-describedby={faults.currency ? 'currency-say' : undefined}
                className="w-28 py-0.5!"
                maxLength={8}
                value={word ?? currency}
                onChange={(e) => setWord(e.target.value)}
              />
              {faults.currency && (
                <p id="currency-say" role="alert" className="text-[0.9rem] font-semibold text-ember">
                  {faults.currency}
                </p>
              )}
            </td>
          </tr>
          {figureNames.map((name) => {
            const { what, unit, usual } = benchFigures[name]
            return (
              <tr key={name} className="border-b border-dashed border-line">
                <td className="py-1">{what.charAt(0).toUpperCase() + what.slice(1)}</td>
                <td className="num text-right text-soft">
                  {unit === 'money' ? money(usual) : `${usual} ${units[unit]}`}
                </td>
                <td className="pl-6">
                  <input
                    aria-label={what}
                    aria-invalid={faults[name] ? true : undefined}
                    aria-describedby={faults[name] ? `${name}-say` : undefined}
                    inputMode="decimal"
                    className="w-28 py-0.5!"
                    value={textOf(name)}
                    onChange={(e) => setTyped({ ...typed, [name]: e.target.value })}
                  />{' '}
                  <span className="text-soft">{units[unit]}</span>
                  {faults[name] && (
                    <p id={`${name}-say`} role="alert" className="text-[0.9rem] font-semibold text-ember">
                      {faults[name]}
                    </p>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </form>
  )
}
