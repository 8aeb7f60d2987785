'use client'
import Link from 'next/link'
import { useEffect, useState } from 'react'
import { percent } from '@/core/maths/percent'
import { sayOutcome } from '@/core/triage/model/outcome-words'
import { faults } from '@/core/triage/model/faults'
import type { FaultId } from '@/core/triage/model/faults'
import type { BestPolicy, Judgement, Practice, PracticeScore } from '@/core/triage/practice/practice-score'
import { useWorker } from '@/ui/use-worker'
import type { PracticeWorker } from '@/workers/practice.worker'

const list = (ids: readonly FaultId[]) => ids.map((id) => faults[id].say).join(' and ')
const tone: Readonly<Record<Judgement, string>> = {
  best: 'text-verd',
  good: 'text-verd',
  sure: 'text-verd',
  costly: 'text-brass',
  'a bet': 'text-brass',
  'told nothing': 'text-ember',
  'a guess': 'text-ember',
  risky: 'text-ember',
}
const shape: Readonly<Record<Judgement, string>> = {
  best: '●',
  good: '●',
  sure: '●',
  costly: '◐',
  'a bet': '◐',
  'told nothing': '○',
  'a guess': '○',
  risky: '▲',
}

const startWorker = () =>
  new Worker(new URL('../../workers/practice.worker.ts', import.meta.url), { type: 'module' })

/** What was wrong, the score, and each choice beside the best there was. */
export function Review({
  tag,
  words,
  limitMinutes,
  practice,
  best,
}: {
  tag: string
  words: string
  limitMinutes: number | null
  practice: Practice
  /** What the best policy takes on this board; null where it is still to be worked. */
  best: BestPolicy | null
}) {
  const remote = useWorker<PracticeWorker>(startWorker)
  const [score, setScore] = useState<PracticeScore | null>(null)
  const [failed, setFailed] = useState(false)
  useEffect(() => {
    let current = true
    void remote()
      .practiceScore(practice, best ?? undefined)
      .then((s) => current && setScore(s))
      .catch(() => current && setFailed(true))
    return () => {
      current = false
    }
  }, [remote, practice, best])
  return (
    <>
      <p className="text-soft">
        <span className="num">{tag}</span> {words}
      </p>
      <h1>It was: {list(practice.truth)}.</h1>
      {failed ? (
        <p role="alert" className="mt-3 text-ember">
          Your choices were not scored: that part of the page did not load, or broke down. Load the page
          again.
        </p>
      ) : score === null ? (
        <p role="status" className="mt-3 text-soft">
          {best
            ? 'Going through your choices…'
            : 'Working the same board by the best policy, five times over…'}
        </p>
      ) : (
        <>
          <p className="mt-1">{sentence(score, limitMinutes)}</p>
          <dl className="mt-4 grid max-w-[44rem] grid-cols-3 gap-x-8 border-y border-line py-3">
            <Figure name="points of 100" value={String(score.points)} />
            <Figure
              name={`minutes${limitMinutes === null ? '' : ` of ${limitMinutes}`}`}
              value={String(score.minutes)}
            />
            <Figure name="minutes by the best policy" value={score.best.minutes.toFixed(0)} />
          </dl>
          {score.lessons.length > 0 && (
            <ul className="mt-3 border-l-4 border-brass pl-3">
              {score.lessons.map((l) => (
                <li key={l.fault}>
                  <b className="font-semibold">{faults[l.fault].say}</b> would have shown: {l.test},{' '}
                  {sayOutcome(l.outcome)}, in {percent(l.odds)}.
                </li>
              ))}
            </ul>
          )}
          <h2 className="mt-6 border-b-2 border-ink pb-1">Choice by choice</h2>
          {score.review.length === 0 && <p className="py-2 text-soft">Nothing was tried.</p>}
          <ol>
            {score.review.map((r, i) => (
              <li
                key={i}
                className="grid grid-cols-[2rem_1fr_9rem_4rem] items-baseline gap-x-3 border-b border-line py-1.5"
              >
                <span className="num text-soft">{i + 1}</span>
                <span>
                  {r.say}
                  <span className="block text-[0.94rem] text-soft">{r.why}</span>
                </span>
                <span className={`font-semibold ${tone[r.judgement]}`}>
                  <span aria-hidden="true">{shape[r.judgement]}</span> {r.judgement}
                </span>
                <span className="num text-right text-soft">{r.minutes} min</span>
              </li>
            ))}
          </ol>
        </>
      )}
      <p className="mt-5 flex gap-5">
        <Link href="/practice" className="underline">
          Another board
        </Link>
        <Link href={`/jobs/${tag}/triage`} className="underline">
          Read its tape
        </Link>
      </p>
    </>
  )
}

function sentence(score: PracticeScore, limitMinutes: number | null): string {
  const over = limitMinutes !== null && score.minutes > limitMinutes ? ', over the limit' : ''
  const needless =
    score.needless.length > 0 ? ` Repaired though nothing was wrong with it: ${list(score.needless)}.` : ''
  if (score.right) return `You found ${score.found.length > 1 ? 'both' : 'it'}${over}.${needless}`
  return `Left behind: ${list(score.missed)}${over}.${needless}`
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-[0.94rem] text-soft">{name}</dt>
      <dd className="num text-[1.5rem]">{value}</dd>
    </div>
  )
}
