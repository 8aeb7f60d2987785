'use client'
import { percent } from '@/core/maths/percent'
import type { Assessment } from '@/core/socket/damage/assess'
import type { ShortGrade } from '@/core/socket/contact/function-law'

const gradeWords: Readonly<Record<ShortGrade, string>> = {
  gravest: 'most serious',
  grave: 'serious',
  unknown: 'not known how serious',
  signal: 'a signal is lost',
  harmless: 'harmless',
}

/** The odds with the interval they were sampled to, where it can be told from them. */
function sampled({ runs, runsLow, runsHigh }: Assessment): string {
  const [low, high] = [percent(runsLow), percent(runsHigh)]
  return low === high ? percent(runs) : `${percent(runs)}, sampled ${low} to ${high}`
}

/** What the damage takes away: shorts first, then the functions, with the trust of the table carried through. */
export function WhatItDoes({ now }: { now: Assessment | null }) {
  if (!now) return <p className="text-soft">Calculating…</p>
  const shorts = now.shorts.filter((s) => s.grade !== 'harmless')
  if (now.groups.length === 0 && shorts.length === 0)
    return (
      <p className="text-soft">
        {now.known
          ? 'No contact is marked as damaged, so nothing is lost as far as anyone has looked.'
          : `Not known: ${now.looked} of ${now.of} contacts are inspected.`}
      </p>
    )
  return (
    <div className="grid @3xl:grid-cols-[minmax(0,1fr)_minmax(0,1.5fr)] gap-x-8">
      <section>
        <h3 className="font-semibold">Touching or near it</h3>
        {shorts.length === 0 && <p className="text-soft">No short, seen or likely.</p>}
        <ul>
          {shorts.slice(0, 24).map((s) => (
            <li key={`${s.a} ${s.b}`} className="border-b border-line py-1">
              <span className="num">
                {s.a}–{s.b}
              </span>{' '}
              <span className={s.odds > 0.5 ? 'font-semibold text-ember' : ''}>
                {s.how === 'seen'
                  ? 'seen to touch'
                  : s.how === 'near'
                    ? 'beams may touch'
                    : s.how === 'reach'
                      ? 'may be the one it lies on'
                      : 'tip may reach the other land'}
                , {percent(s.odds)}
              </span>
              <span className="text-soft">; {gradeWords[s.grade]}</span>
            </li>
          ))}
        </ul>
      </section>
      <section>
        <h3 className="font-semibold">
          Expect: <span className="font-normal">{now.symptom}</span>
        </h3>
        <p className="text-soft">
          Starts as it stands:{' '}
          {now.known ? sampled(now) : `not known, ${now.looked} of ${now.of} contacts are inspected`}
          {now.tableDoubt >= 0.005
            ? `; ${Math.round(100 * now.tableDoubt)} points more of doubt are the function table’s`
            : '; the function table adds no doubt to that'}
          .
        </p>
        <table className="w-full">
          <thead>
            <tr>
              <th>Function</th>
              <th>Marked</th>
              <th>Lost</th>
              <th>Would show as</th>
            </tr>
          </thead>
          <tbody>
            {now.groups.map((g) => (
              <tr key={g.group}>
                <td>{g.group}</td>
                <td className="num whitespace-nowrap">
                  {g.damaged} of {g.of}
                </td>
                <td className={`num whitespace-nowrap ${g.lost > 0.5 ? 'font-semibold text-ember' : ''}`}>
                  {percent(g.lost)}
                  {g.strained > 0.05 && (
                    <span className="block font-sans text-[0.85rem] text-brass">
                      strained {percent(g.strained)}
                    </span>
                  )}
                </td>
                <td className="text-soft">{g.symptom}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-2 text-soft">
          {now.tableDoubt >= 0.01
            ? `The function table moves the odds by ${percent(now.tableDoubt)}; a better table would settle that.`
            : 'The function table hardly moves these odds.'}
          {now.seats < 0.99 && ` The CPU drops into place with ${percent(now.seats)}.`}
        </p>
      </section>
    </div>
  )
}
