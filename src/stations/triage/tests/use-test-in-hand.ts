'use client'
import { useMemo, useState } from 'react'
import type { NextTest } from '@/core/triage/reason/belief'
import type { BenchTest } from '@/core/triage/model/bench-test'
import { testsOf } from '@/core/triage/model/shows'
import { testOf } from '@/core/triage/reason/hypotheses'
import { chosenStep } from '@/core/triage/next-step'
import { useAdvice } from '@/job/AdviceProvider'
import { useJob } from '@/job/JobProvider'
import { useShown } from '@/job/use-shown'

/** The test in hand: what is due or tells most, until another is chosen. */
export function useTestInHand() {
  const { belief, fresh, failed } = useAdvice()
  const gate = useJob((j) => j.gate)
  const shown = useShown()
  const tests = useMemo(() => testsOf(shown), [shown])
  const mayPower = gate.lamp !== 'do not power'
  const [chosen, setChosen] = useState<{ id: string; instead: string | undefined } | null>(null)
  const next = belief?.next ?? []
  const first = next[0]
  // A choice holds until what is next has changed: then the adviser has the word again.
  const other = chosen && chosen.instead === first?.test.id ? chosen.id : null
  const suggested = other ? next.find((s) => s.test.id === other) : first
  const test =
    other && !suggested ? withoutOdds(tests.find((t) => t.id === other) ?? testOf(other)) : suggested?.test
  return {
    belief,
    fresh,
    failed,
    test: test ?? null,
    /** Every test that this board can answer. */
    tests,
    /** Odds of its outcomes, where they are known. */
    outcomes: suggested?.outcomes ?? [],
    /** Another than what is due or tells most. */
    instead: other !== null,
    /** The others, as they come after it. */
    after: next.filter((s) => s.test.id !== test?.id && (mayPower || !s.test.powers)).slice(0, 2),
    /** The gate lets the test in hand be done. */
    mayRun: mayPower || test?.powers !== true,
    choose: (id: string | null) => setChosen(id === null ? null : { id, instead: first?.test.id }),
    /** What to do, when it is another than the adviser’s. */
    step: other && test ? chosenStep(test, suggested, gate) : null,
  }
}
export type TestInHand = ReturnType<typeof useTestInHand>

function withoutOdds({ odds: _, ...test }: BenchTest): NextTest['test'] {
  return test
}
