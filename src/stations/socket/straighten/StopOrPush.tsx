'use client'
import { percent } from '@/core/maths/percent'
import dynamic from 'next/dynamic'
import type { PushAdvice } from '@/core/socket/straighten/push'
import { eyeSaid, learnedEyes, learnedTechniques } from '@/core/socket/straighten/snap-record'
import type { Learned } from '@/core/socket/straighten/snap-record'
import { useReader } from '@/ui/reader'
import { sentence } from '@/core/sentence'
import { useJob } from '@/job/JobProvider'
import type { Surface } from '@/stations/socket/map/use-surface'

const PushCurve = dynamic(() => import('./PushCurve').then((m) => m.PushCurve), {
  ssr: false,
  loading: () => <div className="h-52" />,
})

export const adviceWords = {
  push: 'Push once more',
  part: 'Separate it first',
  stop: 'Stop here',
  test: 'Test it now',
} as const

/** What one more stroke would gain and what it would cost, and what this shop's own record says of it. */
export function StopOrPush({ surface, advice }: { surface: Surface; advice: PushAdvice | null }) {
  const { money } = useReader()
  // Hundredths of a mean would say more than is known.
  const whole = (minor: number) => money(100 * Math.round(minor / 100))
  return (
    <div className="grid gap-x-8 gap-y-3 @3xl:grid-cols-2">
      <section>
        {advice ? (
          <>
            <h3 className="font-semibold">
              <span className="num">{surface.cursor}</span>: {adviceWords[advice.advice].toLowerCase()}
            </h3>
            <p>{advice.why}.</p>
            <p className="text-soft">
              Worth of the board in the mean: worked on {whole(advice.ends.pushedMinor)}, left as it is{' '}
              {whole(advice.ends.leftMinor)}, lost {whole(advice.ends.lostMinor)}.
            </p>
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
                      <td className="num">{percent(c.makesContact)}</td>
                      <td>{percent(c.snaps)}</td>
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

/** What snapped of what was tried in this shop, beside what was predicted; and whether light and magnification told. */
function Record() {
  const record = useJob((j) => j.setting.record)
  const eyes = learnedEyes(record)
  const sentences = eyes.flatMap((e) => eyeSaid(e) ?? [])
  return (
    <section>
      <h3 className="font-semibold">What this shop’s hands have done</h3>
      {record.length === 0 ? (
        <p className="text-soft">No stroke is on any tape yet: the bench defaults hold.</p>
      ) : (
        <LearnedTable
          head="How, on what"
          lines={learnedTechniques(record).map((l) => [
            `${l.technique}${l.damage ? `, ${l.damage}` : ''}`,
            l,
          ])}
        />
      )}
      <p className="mt-1 text-[0.9rem] text-soft">
        The prediction counts as 40 attempts against the record; in brackets, where nine in ten would lie.
      </p>
      {eyes.length > 0 && (
        <>
          <h4 className="mt-3 font-semibold">By light and magnification</h4>
          <LearnedTable head="Looked at under" lines={eyes.map((e) => [e.as, e])} />
          <p className="mt-1 text-[0.9rem] text-soft">
            {sentences.length > 0
              ? sentences.map(sentence).join(' ')
              : 'So far none of them tells: what is lost under each is what the techniques explain.'}{' '}
            The light and magnification set above count in every odds on this page.
          </p>
        </>
      )}
    </section>
  )
}

function LearnedTable({
  head,
  lines,
}: {
  head: string
  lines: readonly (readonly [what: string, learned: Learned])[]
}) {
  return (
    <table className="w-full text-[0.95rem]" aria-label={head}>
      <thead>
        <tr>
          <th>{head}</th>
          <th>Lost</th>
          <th>Predicted</th>
          <th>Taken now</th>
        </tr>
      </thead>
      <tbody>
        {lines.map(([what, { tried, snapped, predicted, odds, low, high }]) => (
          <tr key={what}>
            <td>{what}</td>
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
        ))}
      </tbody>
    </table>
  )
}
