'use client'
import dynamic from 'next/dynamic'
import { sayMoment, timedList } from '@/core/parts/heat/timed-list'
import type { Found } from '@/core/parts/heat/heat-search'
import { Caution } from '@/ui/Caution'
import type { HeatInHand } from './use-heat'

const HeatChart = dynamic(() => import('./HeatChart').then((m) => m.HeatChart), {
  ssr: false,
  loading: () => <div className="h-[17.5rem]" />,
})

const deg = (c: number) => `${Math.round(c)} °C`

/** What a recipe comes to: the window, what goes wrong, the list to follow, and ways of working beside each other. */
export function HeatWindow({ heat }: { heat: HeatInHand }) {
  const { shown, fresh, typed, change, sought, say, kept } = heat
  if (!shown)
    return (
      <p role="status" className="pt-2 text-soft">
        {say || 'A field of the recipe is not clear yet; it says which.'}
      </p>
    )
  const { setUp, steps, run } = shown
  const { verdict } = run
  return (
    <section aria-label="Heat window" className="pt-1 pb-4 leading-snug">
      <HeatChart
        setUp={setUp}
        steps={steps}
        run={run}
        readings={kept && fresh ? kept.readings : []}
        onDrag={(step, airC, seconds) =>
          change({
            steps: typed.steps.map((s, i) =>
              i === step ? { ...s, airC: String(airC), seconds: String(seconds) } : s,
            ),
          })
        }
      />
      {say && (
        <p role="alert" className="font-semibold text-ember">
          {say}
        </p>
      )}
      <p aria-live="polite" className="mt-1 text-[1.1rem]">
        {verdict.floatsAtS === null ? (
          <strong className="text-ember">It never floats: nothing is lifted.</strong>
        ) : (
          <>
            <strong className={verdict.wrong.length === 0 ? 'text-verd' : ''}>
              Floats at <span className="num">{sayMoment(verdict.floatsAtS)}</span>.
            </strong>{' '}
            {verdict.wrong.length === 0 && 'Nothing passes its limit.'}
          </>
        )}
      </p>
      {verdict.wrong.length > 0 && (
        <ul className="list-disc pl-5 font-semibold text-ember">
          {verdict.wrong.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      )}
      <p className="mt-1 text-soft tabular-nums">
        joint {deg(verdict.jointMostC)} at most, body {deg(verdict.bodyMostC)}
        {setUp.spared.map(({ what }, i) => `, ${what} ${deg(verdict.sparedMostC[i]!)}`)}, warms by{' '}
        {verdict.rampKs.toFixed(1)} K/s at most
      </p>
      <div className="mt-3">
        <Caution>
          Hot air and hot boards burn. Fume extraction on, eyes protected, nothing flammable near, local rules
          first. Lead and flux: wash hands.
        </Caution>
      </div>
      <h2 className="mt-3 font-semibold">At the bench</h2>
      <ol>
        {timedList(setUp, steps, run).map(({ atS, say: does }, i) => (
          <li key={i} className="grid grid-cols-[3.4rem_1fr] gap-2 border-b border-line py-1">
            <span className="num">{sayMoment(atS)}</span>
            <span>{does}</span>
          </li>
        ))}
      </ol>
      {sought && (
        <>
          <h2 className="mt-3 font-semibold">Ways of working, with what is at hand</h2>
          <dl>
            {sought.schools.map(({ school, found }) => (
              <div key={school} className="grid grid-cols-[7rem_1fr] gap-2 border-b border-line py-1">
                <dt>{school}</dt>
                <dd>{found ? <School found={found} /> : 'does not melt the joint, or is not at hand'}</dd>
              </div>
            ))}
          </dl>
        </>
      )}
    </section>
  )
}

function School({ found: { setUp, steps, run, spareK } }: { found: Found }) {
  const { wrong, floatsAtS } = run.verdict
  return (
    <>
      nozzle {setUp.nozzleMm} mm, air {deg(steps.at(-1)!.airC!)}, floats at{' '}
      <span className="num">{sayMoment(floatsAtS!)}</span>:{' '}
      {wrong.length > 0 ? (
        <span className="font-semibold text-ember">{wrong.join('; ')}</span>
      ) : (
        <span className="text-verd">{Math.round(spareK)} K from its nearest limit</span>
      )}
    </>
  )
}
