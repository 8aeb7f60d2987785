import { hasPicture, isPicture } from '../board/baseline'
import { testOf } from '../triage/reason/hypotheses'
import type { JobState } from './job-state'

/** A power-up of which it was noted whether there was a picture, by its line. */
export interface StartSeen {
  readonly seq: number
  readonly came: boolean
}

/** Those before the proof: power-ups, trials and swaps. */
function triedOf({ board, triage }: JobState): readonly StartSeen[] {
  const seen = [...triage.trials.filter(({ test }) => testOf(test).byStage), ...triage.swaps]
  return [
    ...board.baselines
      .filter((b) => b.picture !== 'not noted')
      .map((b) => ({ seq: b.seq, came: hasPicture(b) })),
    ...seen.map(({ seq, outcome }) => ({ seq, came: isPicture(outcome) })),
  ]
}

const bySeq = (starts: readonly StartSeen[]) => [...starts].sort((a, b) => a.seq - b.seq)

/** Power-ups of which it was noted whether there was a picture, whatever they were for, in the order of the tape. */
export const startsOf = (state: JobState): readonly StartSeen[] =>
  bySeq([...triedOf(state), ...state.proof.starts.map(({ seq, came }) => ({ seq, came }))])

/** The last of some starts of the board as it stands: none before socket, parts, firmware or CPU were last changed. */
function lastOf(starts: readonly StartSeen[], { lastTouched, changed }: JobState['board']): StartSeen | null {
  const since = Math.max(lastTouched, changed.firmware, changed.cpu)
  return starts.findLast(({ seq }) => seq > since) ?? null
}
export const lastStart = (state: JobState): StartSeen | null => lastOf(startsOf(state), state.board)

/** The last one before the proof: what the proof is made from, so that its own starts do not change it while they are made. */
export const lastTried = (state: JobState): StartSeen | null => lastOf(bySeq(triedOf(state)), state.board)
