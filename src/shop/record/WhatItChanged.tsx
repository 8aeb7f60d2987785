import { harmsOf } from '@/core/record/job-record'
import Link from 'next/link'
import { believedOf, knownBy } from '@/core/intake/known-by'
import { percent } from '@/core/maths/percent'
import type { Factor } from '@/core/record/factor'
import type { TrackRecord } from '@/core/record/track-record'

const times = ({ factor }: Factor) => `× ${factor.toFixed(2)}`

/** What the work of today reckons with because of the record: before it, and now. */
export function WhatItChanged({ record: { learned, worked, harms, held } }: { record: TrackRecord }) {
  const rows = [
    ...knownBy.map((knows) => {
      const { held: n = 0, checked = 0 } = learned.claims[knows] ?? {}
      return {
        what: `a claim, “${knows}”, is believed`,
        before: percent(believedOf(knows, undefined)),
        now: percent(believedOf(knows, learned.claims[knows])),
        from: checked === 0 ? 'none checked yet' : `${n} of ${checked} held`,
      }
    }),
    {
      what: 'minutes until a job is ready',
      before: '× 1.00',
      now: times(learned.agreed),
      from: learned.agreed.n === 0 ? 'no fixed job yet' : `${learned.agreed.n} fixed jobs`,
    },
    {
      what: 'minutes of going on',
      before: '× 1.00',
      now: times(learned.goingOn),
      from: learned.goingOn.n === 0 ? 'nothing decided so yet' : `${learned.goingOn.n} decisions`,
    },
  ]
  return (
    <section aria-label="What it changed" className="mt-8 max-w-[52rem]">
      <h2>What the bench reckons with because of it</h2>
      <table className="mt-1 w-full">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">before</th>
            <th scope="col">now</th>
            <th scope="col">from</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ what, before, now, from }) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td className="num">{before}</td>
              <td className="num font-semibold">{now}</td>
              <td className="text-soft">{from}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-[0.94rem] text-soft">
        How often contacts snap stands with{' '}
        <Link href="/library/bench" className="underline">
          the bench figures
        </Link>
        , each stroke corrects it; repairs that took correct the odds of the next.{' '}
        <span className="num">{worked}</span> contacts were worked on here; what the work itself did:{' '}
        {harmsOf.map((harm, i) => (
          <span key={harm}>
            {i > 0 && ', '}
            {harm} <span className="num">{harms[harm]}</span>
          </span>
        ))}
        {held.asked > 0 && (
          <>
            ; of <span className="num">{held.asked}</span> repairs that were asked after,{' '}
            <span className="num">{held.held}</span> held
          </>
        )}
        .
      </p>
    </section>
  )
}
