import type { Socket } from '../socket/model/socket'
import type { JobState } from './job-state'
import { powerEvidence } from './power-evidence'
import { powerGate } from './power-gate'
import type { PowerGate } from '../board/gate-reason'

type Judged = Pick<JobState, 'socket' | 'firmware' | 'triage'> & {
  readonly field: Socket | null
  readonly gate: PowerGate
}

/** The last judgement of each board’s state: a line that bears on none of it does not have it judged again. */
const judged = new WeakMap<JobState['board'], Judged>()

/** May this board be powered, as the tape has it? */
export function gateOf(state: JobState, field: Socket | null): PowerGate {
  const known = judged.get(state.board)
  const { socket, firmware, triage } = state
  const same = known?.socket === socket && known.firmware === firmware && known.triage === triage
  if (known && same && known.field === field) return known.gate
  const gate = powerGate(powerEvidence(state, field))
  judged.set(state.board, { socket, firmware, triage, field, gate })
  return gate
}
