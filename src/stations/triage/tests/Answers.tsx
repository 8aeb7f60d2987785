'use client'
import { useState } from 'react'
import type { Step } from '@/core/board/step'
import { sayOutcome } from '@/core/triage/model/outcome-words'
import type { FaultId } from '@/core/triage/model/faults'
import { percent } from '@/core/maths/percent'
import type { KeyId } from '@/frame/key-table'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { SelectField } from '@/ui/Field'
import { Sheet } from '@/ui/Sheet'
import { useSimulated } from '@/stations/triage/simulated/use-simulated'
import { useAnswer } from './use-answer'
import type { TestInHand } from './use-test-in-hand'

/** The answers to the test in hand: one press each, or its figure; run on the simulated bench where there is one. */
export function Answers({ step, inHand }: { step: Step; inHand: TestInHand }) {
  const { belief, fresh, outcomes } = inHand
  const test = inHand.test?.id === step.test ? inHand.test : null
  const answer = useAnswer()
  const append = useJob((j) => j.append)
  const simulated = useSimulated()
  const hint = useKeyHint()
  const [asking, setAsking] = useState(false)
  const found = step.repairs ?? null
  const give = (outcome: string) => test && fresh && answer({ test: test.id, outcome })
  const runs = simulated.there && inHand.mayRun
  const run = () => test && fresh && runs && void simulated.ask({ ask: 'test', test: test.id })
  const repaired = () => found && fresh && append('mended', { fault: found as FaultId })
  useKeys({
    ...(found ? { repaired } : {}),
    ...(found
      ? {}
      : Object.fromEntries(
          (test?.outcomes ?? []).map((outcome, i) => [`outcome.${i + 1}`, () => give(outcome)]),
        )),
    carryOut: run,
    otherTest: () => setAsking(true),
  })
  const odds = new Map(outcomes.map((o) => [o.outcome, o.odds]))
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-3" role="group" aria-label="Result">
      <div className="flex flex-wrap items-center gap-1">
        {found && (
          <Button look="first" className="px-2.5! py-0.5!" keyHint={hint('repaired')} onClick={repaired}>
            Repaired
          </Button>
        )}
        {!found && test && runs && (
          <Button
            look="first"
            className="gap-2! px-2! py-0.5! text-[0.88rem]"
            keyHint={hint('carryOut')}
            onClick={run}
            disabled={simulated.busy}
          >
            Run it (simulated)
          </Button>
        )}
        {!found &&
          test?.outcomes.map((outcome, i) => (
            <button
              key={outcome}
              type="button"
              onClick={() => give(outcome)}
              className="rounded-sheet border-[1.5px] border-line px-1.5 py-0.5 text-[0.85rem] leading-snug font-semibold whitespace-nowrap hover:border-ink"
            >
              <kbd className="num text-[0.78rem] font-normal text-soft">
                {i < 9 && hint(`outcome.${i + 1}` as KeyId)}
              </kbd>{' '}
              {sayOutcome(outcome)}{' '}
              <span className="num text-[0.78rem] font-normal text-soft">
                {odds.has(outcome) && percent(odds.get(outcome)!)}
              </span>
            </button>
          ))}
        {!found && belief?.verdict?.is === 'nothing left' && !test && (
          <span className="text-soft">No further test needed.</span>
        )}
        {simulated.say && (
          <p role="alert" className="font-semibold text-ember">
            {simulated.say}
          </p>
        )}
      </div>
      <div className="flex flex-col items-end">
        <Button
          look="bare"
          className="px-1! py-0.5! text-[0.92rem]"
          keyHint={hint('otherTest')}
          onClick={() => setAsking(true)}
        >
          other test
        </Button>
        {inHand.instead && (
          <Button look="bare" className="px-1! py-0.5! text-[0.92rem]" onClick={() => inHand.choose(null)}>
            back to what is due
          </Button>
        )}
      </div>
      <Sheet open={asking} title="Another test" onClose={() => setAsking(false)}>
        <SelectField
          label="Which"
          value=""
          autoFocus
          onChange={(e) => {
            inHand.choose(e.target.value)
            setAsking(false)
          }}
        >
          <option value="">…</option>
          {inHand.tests.map((t) => (
            <option key={t.id} value={t.id}>
              {t.say}, {t.minutes} min
            </option>
          ))}
        </SelectField>
        <p className="mt-2 text-soft">
          It comes to the top with its answers: done because a hand was on it, or because you know better.
        </p>
      </Sheet>
    </div>
  )
}
