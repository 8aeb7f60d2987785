'use client'
import type { Reckoning } from '@/core/socket/straighten/reckon'
import { useJob } from '@/job/JobProvider'
import type { Surface } from './map/use-surface'

/** Out of a hundred; an eye that has looked is never sure of all of it. */
const percent = (p: number) => `${Math.min(99, Math.round(p * 100))} %`

const said = ({ known }: Reckoning['now'], odds: number) => (known ? percent(odds) : 'not known')

/** Half the sampling interval and the doubt of the function table together, in percent. */
const doubt = ({ runsLow, runsHigh, tableDoubt }: Reckoning['now']) =>
  Math.max(1, Math.round(((runsHigh - runsLow) / 2 + tableDoubt) * 100))

interface Props {
  readonly surface: Surface
  readonly reckoning: Reckoning | null
  readonly fresh: boolean
  readonly failed: boolean
}

/** How far the field is looked at, and the odds: as it is, and once the plan went through. */
export function Standing({ surface, reckoning, fresh, failed }: Props) {
  const put = useJob((j) => j.put)
  const { socket, pass, marks } = surface
  const of = socket.contacts.length
  const seen = new Set([...Object.keys(pass?.looked ?? {}), ...Object.keys(marks)]).size
  const { now, then } = reckoning ?? {}
  return (
    <p
      className="flex flex-wrap items-baseline gap-x-6 border-t border-line py-2 text-[0.95rem] text-soft"
      aria-live="polite"
      data-fresh={fresh}
    >
      <span>
        <b className="font-semibold text-ink">{seen.toLocaleString()}</b> of {of.toLocaleString()} looked at
        {seen < of && (
          <button
            type="button"
            className="ml-2 underline decoration-line underline-offset-4 hover:text-ink"
            onClick={() => put('looked', { contacts: 'all' })}
          >
            Whole field looked at
          </button>
        )}
      </span>
      <span>
        runs as it is: <b className="font-semibold text-ink">{now ? said(now, now.runs) : '…'}</b>
      </span>
      {failed && (
        <span className="font-semibold text-ember">
          These odds are older: reckoning them failed. They are asked again at the next mark.
        </span>
      )}
      <span>
        after this plan: <b className="font-semibold text-ink">{then ? said(then, then.runs) : '…'}</b>
        {then?.known && ` ± ${doubt(then)}, nothing lost ${percent(then.whole)}`}
      </span>
    </p>
  )
}
