'use client'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useState } from 'react'
import { percent } from '@/core/maths/percent'
import { sayCalibration } from '@/core/record/calibration'
import { sayFactor } from '@/core/record/factor'
import type { OddsGroup, TrackRecord } from '@/core/record/track-record'
import { Choice } from '@/ui/Choice'
import { SelectField } from '@/ui/Field'
import { WhatItChanged } from './WhatItChanged'

const Reliability = dynamic(() => import('./Reliability').then((m) => m.Reliability), {
  ssr: false,
  loading: () => <div className="h-[22rem]" />,
})

const sortWords: Readonly<Record<string, string>> = {
  'picture said aloud': 'a picture, said aloud',
  'picture reckoned': 'a picture, reckoned',
  'snaps reckoned': 'a contact snaps',
  'claims reckoned': 'a claim holds',
  'repairs reckoned': 'a repair works',
  'going on reckoned': 'going on gets it fixed',
  'proof reckoned': 'a test finds something',
  'promise reckoned': 'a promise is kept',
  'holds reckoned': 'it holds at home',
}
const sortOf = ({ of, source }: OddsGroup) => `${of} ${source}`
const schoolWords = { A: 'easy ones first', B: 'worst first' } as const
const partOf = ({ by, kind, school }: OddsGroup) =>
  by ? `by ${by}` : kind ? `of ${kind}` : school ? schoolWords[school] : ''

/** What was predicted against what came: odds by tenths, time, and what follows from it for the work of today. */
export function CameTrue({ record }: { record: TrackRecord }) {
  const there = new Set(record.groups.map(sortOf))
  const sorts = Object.keys(sortWords).filter((sort) => there.has(sort))
  const [sort, setSort] = useState(sorts[0] ?? '')
  const [part, setPart] = useState('')
  const of = record.groups.filter((g) => sortOf(g) === sort)
  const group = of.find((g) => partOf(g) === part) ?? of[0]
  return (
    <>
      <p>
        <Link href="/record" className="underline">
          Record
        </Link>
      </p>
      <h1>
        {record.jobs === 0
          ? 'Nothing has come true yet: no job is finished'
          : `What came true in ${record.jobs} ${record.jobs === 1 ? 'job' : 'jobs'}`}
      </h1>
      <p className="mt-0.5 max-w-[52rem] text-soft">
        Odds that were said on the way, by the bench or aloud, against what came of them.{' '}
        <a href="/api/record" download className="underline">
          CSV
        </a>{' '}
        <a href="/api/record?as=json" download className="underline">
          JSON
        </a>
      </p>
      {group ? (
        <section aria-label="Odds against what came" className="mt-4">
          <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
            <Choice
              label="Odds that"
              value={sort}
              options={sorts}
              words={sortWords}
              onChange={(to) => {
                setSort(to)
                setPart('')
              }}
            />
            <div className="w-56">
              <SelectField label="Whose, or of what" value={part} onChange={(e) => setPart(e.target.value)}>
                {of.map((g) => (
                  <option key={partOf(g)} value={partOf(g)}>
                    {partOf(g) || 'all of them'} ({g.calibration.n})
                  </option>
                ))}
              </SelectField>
            </div>
          </div>
          <p className="mt-3 text-lg" aria-live="polite">
            {capital(sayCalibration(group.calibration, percent))}.
          </p>
          <div className="mt-2 grid gap-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
            <Reliability of={group.calibration} />
            <Tenths of={group.calibration} />
          </div>
        </section>
      ) : (
        record.jobs > 0 && <p className="mt-4">No odds were said in these jobs.</p>
      )}
      {record.jobs > 0 && (
        <>
          <WhatItChanged record={record} />
          <section aria-label="Time" className="mt-8 max-w-[52rem]">
            <h2>Time at the bench</h2>
            <p>
              {record.learned.agreed.n === 0
                ? 'No fixed job has both its minutes.'
                : sayFactor(record.learned.agreed)}
            </p>
            {record.timeBy.length > 0 && (
              <table className="mt-2 w-full">
                <thead>
                  <tr>
                    <th scope="col">Who</th>
                    <th scope="col">jobs</th>
                    <th scope="col">times what is agreed</th>
                    <th scope="col">where that lies, with 80 %</th>
                  </tr>
                </thead>
                <tbody>
                  {record.timeBy.map(({ by, factor }) => (
                    <tr key={by}>
                      <th scope="row">{by}</th>
                      <td className="num">{factor.n}</td>
                      <td className="num">{factor.factor.toFixed(2)}</td>
                      <td className="num">
                        {factor.low.toFixed(2)} to {factor.high.toFixed(2)}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </section>
        </>
      )}
    </>
  )
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** A share that was counted, none and all among them. */
const share = (of: number) => `${Math.round(100 * of)} %`

/** The curve’s twin in words and figures. */
function Tenths({ of: { deciles, brier, brierOfShare, n } }: { of: OddsGroup['calibration'] }) {
  return (
    <div>
      <table className="w-full">
        <thead>
          <tr>
            <th scope="col">Said</th>
            <th scope="col">times</th>
            <th scope="col">came true</th>
            <th scope="col">with 90 %</th>
          </tr>
        </thead>
        <tbody>
          {deciles.map(
            (tenth, i) =>
              tenth && (
                <tr key={i}>
                  <th scope="row" className="num">
                    {share(tenth.said)}
                  </th>
                  <td className="num">{tenth.n}</td>
                  <td className="num">{share(tenth.came)}</td>
                  <td className="num">
                    {share(tenth.low)} to {share(tenth.high)}
                  </td>
                </tr>
              ),
          )}
        </tbody>
      </table>
      {brier !== null && brierOfShare !== null && (
        <p className="mt-2 text-[0.94rem] text-soft">
          Mean square of the error (Brier) <span className="num">{brier.toFixed(3)}</span>; always saying the
          share that came true would have <span className="num">{brierOfShare.toFixed(3)}</span>
          {n > 1 && brier > brierOfShare ? ': these odds tell less than that share' : ''}.
        </p>
      )}
    </div>
  )
}
