import type { JobState } from './job-state'
import type { References } from './references'
import { evidenceOf } from './evidence'
import type { FaultId } from '../triage/model/faults'
import type { PracticeStep } from '../triage/practice/practice-score'

/**
 * What was done on a practice board, in order; what was seen at one line of the tape is one test and its company.
 * @param mayPower whether the gate let the board be powered before a line; left out, it always did
 */
export function practiceSteps(
  state: JobState,
  reference: Partial<References>,
  mayPower: (line: number) => boolean = () => true,
): PracticeStep[] {
  const { evidence } = evidenceOf(state, null, reference)
  const mends = state.triage.mended.map(({ seq, fault }) => ({
    seq,
    step: { do: 'mend', fault: fault as FaultId } as const,
  }))
  const tests = evidence.map(({ seq, test, outcome }, i) => ({
    seq,
    step: {
      do: 'test',
      test,
      outcome,
      ...(evidence[i - 1]?.seq === seq ? { along: true } : {}),
      ...(mayPower(seq) ? {} : { mayPower: false }),
    } as const,
  }))
  return [...tests, ...mends].sort((a, b) => a.seq - b.seq).map(({ step }) => step)
}
