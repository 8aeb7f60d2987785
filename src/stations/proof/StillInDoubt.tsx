'use client'
import { sayProved } from '@/core/board/proved'
import { percent } from '@/core/maths/percent'
import type { ProofStanding, StandingTest } from '@/core/proof/plan'
import { upperFirst } from '@/core/sentence'

/** Where a thing stands that may be bad: the tests that would show it and have not passed. */
function whyStill(what: string, tests: readonly StandingTest[]): string {
  const would = tests.filter((t) => t.result !== 'pass' && what in t.shows)
  const open = would.filter((t) => t.result === null)
  if (open.length > 0) return `would show: ${open.map((t) => t.test).join('; ')}`
  if (would.length > 0) return `cannot be run here: ${would.map((t) => t.test).join('; ')}`
  const done = tests.filter((t) => t.result === 'pass' && what in t.shows)
  return done.length > 0 ? 'tested; no test is sure' : 'no test of this plan shows it: it was not touched'
}

/** What could still be wrong, after what has passed, and of what. */
export function StillInDoubt({ left, tests }: Pick<ProofStanding, 'left' | 'tests'>) {
  return (
    <section className="mt-5 border-t border-line pt-2.5" aria-labelledby="still-in-doubt">
      <h2 id="still-in-doubt">What could still be wrong</h2>
      {'notKnown' in left ? (
        <p className="text-soft">Not known: {left.notKnown}.</p>
      ) : (
        <>
          <p className="mt-1">
            <b className="font-semibold">{percent(left.odds)}</b> that the owner finds something that was not
            found here.{' '}
            <span className="text-soft">
              What is suspected, missed contacts and the doubt of the function table are in it; the rest are
              bench defaults.
            </span>
          </p>
          {left.of.length > 0 && (
            <ul className="mt-1.5">
              {left.of.map(({ what, odds }) => (
                <li
                  key={what}
                  className="grid grid-cols-[4rem_minmax(0,1fr)] gap-x-3 border-t border-dashed border-line py-1"
                >
                  <span className="text-right font-semibold">{percent(odds)}</span>
                  <span className="leading-snug">
                    {upperFirst(sayProved(what))} <span className="text-soft">({whyStill(what, tests)})</span>
                  </span>
                </li>
              ))}
            </ul>
          )}
        </>
      )}
    </section>
  )
}
