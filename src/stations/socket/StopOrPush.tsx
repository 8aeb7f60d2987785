'use client'
import { inHundred } from '@/core/in-hundred'
import dynamic from 'next/dynamic'
import type { PushAdvice } from '@/core/socket/push'
import { learn } from '@/core/socket/snap-record'
import { useJob } from '@/stations/job/JobProvider'
import type { Surface } from './use-surface'

const PushCurve = dynamic(() => import('./PushCurve').then((m) => m.PushCurve), {
  ssr: false,
  loading: () => <div className="h-52" />,
})

export const adviceWords = { push: 'Push once more', stop: 'Stop here', test: 'Test it now' } as const

/** What one more stroke would gain and what it would cost, and what this shop's own record says of it. */
export function StopOrPush({ surface, advice }: { surface: Surface; advice: PushAdvice | null }) {
  return (
    <div className="grid grid-cols-2 gap-x-8">
      <section>
        {advice ? (
          <>
            <h3 className="font-semibold">
              <span className="num">{surface.cursor}</span>: {adviceWords[advice.advice].toLowerCase()}
            </h3>
            <p>{advice.why}.</p>
            {advice.curve.length > 0 && <PushCurve advice={advice} />}
            {advice.curve.length > 0 && (
              <table className="mt-1 w-full">
                <thead>
                  <tr>
                    <th>Stroke</th>
                    <th>Left, mm</th>
                    <th>Makes contact</th>
                    <th>Snaps</th>
                  </tr>
                </thead>
                <tbody>
                  {advice.curve.map((c) => (
                    <tr key={c.stroke}>
                      <td className="num">{c.stroke}</td>
                      <td className="num">{c.residualMm.toFixed(2)}</td>
                      <td className="num">{Math.round(100 * c.makesContact)} %</td>
                      <td>{inHundred(c.snaps)} of 100</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </>
        ) : (
          <p className="text-soft">
            Put the needle on a contact that is to be straightened: here stands whether one more stroke is
            worth it.
          </p>
        )}
      </section>
      <Record />
    </div>
  )
}

/** What snapped of what was tried in this shop, beside what was predicted. */
function Record() {
  const record = useJob((j) => j.record)
  return (
    <section>
      <h3 className="font-semibold">What this shop’s hands have done</h3>
      {record.length === 0 ? (
        <p className="text-soft">No stroke is on any tape yet: the bench defaults hold.</p>
      ) : (
        <table className="w-full text-[0.95rem]">
          <thead>
            <tr>
              <th>How, on what</th>
              <th>Lost</th>
              <th>Predicted</th>
              <th>Taken now</th>
            </tr>
          </thead>
          <tbody>
            {record.map((tally) => {
              const { technique, damage, tried, snapped, predicted, odds, low, high } = learn(tally)
              return (
                <tr key={`${technique} ${damage}`}>
                  <td>
                    {technique}
                    {damage ? `, ${damage}` : ''}
                  </td>
                  <td className="num whitespace-nowrap">
                    {snapped} of {tried}
                  </td>
                  <td className="num">{((100 * predicted) / tried).toFixed(1)} %</td>
                  <td className="num">
                    {(100 * odds).toFixed(1)} %
                    <span className="block text-[0.86rem] text-soft">
                      ({(100 * low).toFixed(0)}–{(100 * high).toFixed(0)})
                    </span>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
      <p className="mt-1 text-[0.9rem] text-soft">
        The prediction counts as 40 attempts against the record; in brackets, where nine in ten would lie.
      </p>
    </section>
  )
}
