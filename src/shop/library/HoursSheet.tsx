'use client'
import { useActionState } from 'react'
import { typedHours, weekdays, weekHours } from '@/core/shop/hours'
import type { Hours } from '@/core/shop/promise'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { hoursAction } from './hours-actions'

/** When the bench is worked, by how many, and on which days it is closed: what promises are reckoned by. */
export function HoursSheet({ hours, mayChange }: { hours: Hours; mayChange: boolean }) {
  const [answer, act, busy] = useActionState(hoursAction, { faults: {}, typed: null, say: '' })
  const { week, closed, people } = answer.typed ?? typedHours(hours)
  const perWeek = Math.round(weekHours(hours) * 10) / 10
  return (
    <>
      <h1>The bench is worked {perWeek} hours a week</h1>
      <p className="mt-0.5 max-w-[46rem] text-soft">
        When jobs are likely ready follows from it: on the bench list, and in the calendar.
        {!mayChange && ' The lead changes it.'}
      </p>
      <form action={act} className="mt-4 max-w-[46rem]" key={JSON.stringify([week, closed, people])}>
        <fieldset disabled={!mayChange || busy}>
          <div className="grid gap-x-10 gap-y-6 md:grid-cols-[24rem_minmax(0,1fr)]">
            <section aria-label="Weekdays">
              {weekdays.map((day, i) => (
                <div key={day} className="border-b border-line py-1.5">
                  <div className="grid grid-cols-[7rem_7rem_auto_7rem] items-center gap-2">
                    <span id={`day-${i}`}>{day}</span>
                    {(['from', 'to'] as const).map((which, k) => (
                      <span key={which} className={k === 1 ? 'contents' : ''}>
                        {k === 1 && <span className="text-soft">to</span>}
                        <input
                          name={`${day} ${which}`}
                          aria-label={`${day} ${which}`}
                          aria-invalid={answer.faults[day] ? true : undefined}
                          aria-describedby={answer.faults[day] ? `fault-${i}` : undefined}
                          className="num w-full"
                          placeholder="closed"
                          defaultValue={week[i]?.[k] ?? ''}
                        />
                      </span>
                    ))}
                  </div>
                  {answer.faults[day] && (
                    <p id={`fault-${i}`} role="alert" className="mt-1 font-semibold text-ember">
                      {answer.faults[day]}
                    </p>
                  )}
                </div>
              ))}
            </section>
            <div className="flex flex-col gap-4">
              <TextField
                label="People at the bench at once"
                name="people"
                className="num"
                inputMode="numeric"
                defaultValue={people}
                error={answer.faults.people}
              />
              <label className="flex flex-col gap-1">
                <span className="text-[0.94rem] text-soft">Closed days, one a line</span>
                <textarea
                  name="closed"
                  rows={7}
                  className="num"
                  placeholder={'2026-12-24 to 2027-01-01\n2027-05-17'}
                  defaultValue={closed}
                  aria-invalid={answer.faults.closed ? true : undefined}
                />
                {answer.faults.closed && (
                  <span role="alert" className="font-semibold text-ember">
                    {answer.faults.closed}
                  </span>
                )}
              </label>
              <div className="flex items-center gap-4">
                <Button type="submit" look="first">
                  Keep the hours
                </Button>
              </div>
            </div>
          </div>
        </fieldset>
        <p role="status" className="mt-3 min-h-[1.4em]">
          {answer.say}
        </p>
      </form>
    </>
  )
}
