'use client'
import { useState } from 'react'
import { figureInHundred } from '@/core/maths/in-hundred'
import { faults } from '@/core/triage/model/fault'
import type { Belief, NextTest } from '@/core/triage/reason/belief'
import { useAnswer } from './use-answer'
import { Button } from '@/ui/Button'
import { useKeys } from '@/ui/keys'
import { AnyTest } from './AnyTest'
import { useSimulated } from './use-simulated'

/** Which test next: what it would tell, minutes, risk. The outcome is one press, or its figure for the one in hand. */
export function NextTests({ belief, fresh }: { belief: Belief | null; fresh: boolean }) {
  const answer = useAnswer()
  const [chosen, setChosen] = useState<string | null>(null)
  const next = belief?.next ?? []
  const simulated = useSimulated()
  const at = next.find((s) => s.test.id === chosen) ?? next[0]
  const keys = Object.fromEntries(
    (at?.test.outcomes ?? []).map((outcome, i) => [
      String(i + 1),
      () => at && fresh && answer({ test: at.test.id, outcome }),
    ]),
  )
  const carryOut = (test: string) => void simulated.ask({ ask: 'test', test })
  useKeys({ ...keys, c: () => at && simulated.there && fresh && carryOut(at.test.id) })
  return (
    <section id="next-test" aria-label="Which test next" className="border-t border-line pt-2.5 pb-4">
      <h2>Which test next</h2>
      {belief?.notWorthMore && next.length > 0 && (
        <p role="status" className="border-l-4 border-brass pl-3">
          <b className="font-semibold">Not worth more.</b> No test left tells much: mend the likeliest and
          see, or stop and say what stays open.
        </p>
      )}
      {belief && next.length === 0 && (
        <p className="text-soft">
          {belief.verdict
            ? 'None: the odds are settled.'
            : 'None that may be done now would tell more. Open the gate, or stop here.'}
        </p>
      )}
      <ol className="mt-1">
        {next.map((s) => (
          <TestLine
            key={s.test.id}
            suggestion={s}
            here={s === at}
            onChoose={() => setChosen(s.test.id)}
            onOutcome={(outcome) => answer({ test: s.test.id, outcome })}
            onCarryOut={simulated.there ? () => carryOut(s.test.id) : null}
          />
        ))}
      </ol>
      {simulated.say && (
        <p role="alert" className="font-semibold text-ember">
          {simulated.say}
        </p>
      )}
      <AnyTest onCarryOut={simulated.there ? carryOut : null} />
    </section>
  )
}

/** Why this one, in a sentence. */
function why({ test, outcomes, tells, riskMinutes }: NextTest): string {
  if (tells === 0)
    return test.id === 'as it came'
      ? 'power-up is due: see whether it starts'
      : 'looked at and measured comes first'
  const points = [
    ...new Set(outcomes.filter((o) => o.odds >= 0.05 && o.points).map((o) => faults[o.points!].say)),
  ].slice(0, 3)
  const apart =
    points.length > 1
      ? `tells ${points.join(' from ')}`
      : points[0]
        ? `most would bear out ${points[0]}`
        : 'shifts the odds'
  const risk =
    riskMinutes >= 1
      ? `; the ${test.lends} it lends stands for ${Math.round(riskMinutes)} minutes of risk`
      : ''
  return `${apart}; ${tells.toFixed(1)} bits${risk}`
}

function TestLine({
  suggestion,
  here,
  onChoose,
  onOutcome,
  onCarryOut,
}: {
  suggestion: NextTest
  here: boolean
  onChoose: () => void
  onOutcome: (outcome: string) => void
  /** Has the simulated bench do it; null on a real one. */
  onCarryOut: (() => void) | null
}) {
  const { test, outcomes } = suggestion
  const odds = new Map(outcomes.map((o) => [o.outcome, o]))
  return (
    <li className={`border-b border-line py-1.5 ${here ? 'border-l-4 border-l-brass pl-3' : 'pl-4'}`}>
      <button
        type="button"
        className="flex w-full items-baseline justify-between gap-3 text-left"
        aria-expanded={here}
        onClick={onChoose}
      >
        <span className={here ? 'font-semibold' : ''}>{test.say}</span>
        <span className="num shrink-0 text-[0.95rem] text-soft">{test.minutes} min</span>
      </button>
      {here && (
        <>
          <p className="text-[0.92rem] text-soft">
            {why(suggestion)}
            {test.needs.length > 0 && `. Needs: ${test.needs.join(', ')}`}
          </p>
          {onCarryOut && (
            <Button className="mt-1 py-1!" keyHint="c" onClick={onCarryOut}>
              Carry it out on the simulated bench
            </Button>
          )}
          <p className="mt-1 text-[0.92rem] text-soft">What did it give?</p>
          <div className="mt-0.5 flex flex-wrap gap-1.5">
            {test.outcomes.map((outcome, i) => (
              <button
                key={outcome}
                type="button"
                onClick={() => onOutcome(outcome)}
                className="rounded-sheet border border-line px-2 py-1 text-left leading-tight hover:border-ink"
              >
                <kbd className="num mr-1.5 text-sm text-soft">{i + 1}</kbd>
                {outcome}{' '}
                <span className="num text-[0.85rem] text-soft">
                  {figureInHundred(odds.get(outcome)?.odds ?? 0)}
                </span>
              </button>
            ))}
          </div>
        </>
      )}
    </li>
  )
}
