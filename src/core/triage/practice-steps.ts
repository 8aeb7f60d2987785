import type { JobState } from '../job/state'
import type { BoardReference } from './evidence'
import { evidenceOf } from './evidence'
import type { PracticeStep } from './practice-score'

/** What was done on a practice board, in order; what was seen at one line of the tape is one test and its company. */
export function practiceSteps(state: JobState, reference: BoardReference): PracticeStep[] {
  const { evidence } = evidenceOf(state, null, reference)
  const mends = state.mended.map(({ seq, fault }) => ({ seq, step: { do: 'mend', fault } as PracticeStep }))
  let line = -1
  const tests = evidence.map(({ seq, test, outcome }) => {
    const along = seq === line
    line = seq
    return { seq, step: { do: 'test', test, outcome, ...(along ? { along } : {}) } as PracticeStep }
  })
  return [...tests, ...mends].sort((a, b) => a.seq - b.seq).map(({ step }) => step)
}
