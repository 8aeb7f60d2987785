'use client'
import { memo } from 'react'
import { Count } from '@/ui/reader'
import { percent } from '@/core/maths/percent'
import type { Reckoning } from '@/core/socket/straighten/reckon'
import { useJob } from '@/job/JobProvider'
import type { Surface } from './map/use-surface'

const sayOdds = ({ known }: Reckoning['now'], odds: number) => (known ? percent(odds) : 'not known')

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
export const Standing = memo(function Standing({ surface, reckoning, fresh, failed }: Props) {
  const append = useJob((j) => j.append)
  const { socket, pass, marks } = surface
  const of = socket.contacts.length
  const seen = new Set([...Object.keys(pass?.looked ?? {}), ...Object.keys(marks)]).size
  const { now, then } = reckoning ?? {}
  return (
    <span className="flex items-baseline gap-3 text-[0.81rem] lg:shrink-0" data-fresh={fresh}>
      <span>
        <b className="font-semibold text-ink">
          <Count n={seen} />
        </b>{' '}
        of <Count n={of} /> inspected
        {seen < of && (
          <button
            type="button"
            className="ml-1.5 underline decoration-line underline-offset-4 hover:text-ink"
            onClick={() => append('looked', { contacts: 'all' })}
          >
            all inspected
          </button>
        )}
      </span>
      <span>
        starts as it stands: <b className="font-semibold text-ink">{now ? sayOdds(now, now.runs) : '…'}</b>
      </span>
      {failed && (
        <span className="font-semibold text-ember">
          These odds are older: calculating them failed. They are asked again at the next mark.
        </span>
      )}
      <span>
        after this work: <b className="font-semibold text-ink">{then ? sayOdds(then, then.runs) : '…'}</b>
        {then?.known && ` ± ${doubt(then)}; every function kept: ${percent(then.whole)}`}
      </span>
    </span>
  )
})
