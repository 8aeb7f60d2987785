import { functionGroups } from '../board/function-group'
import { proofPlan, standingOf } from '../proof/plan'
import type { ProofStanding, Touched } from '../proof/plan'
import { isDamage } from '../socket/damage/mark'
import type { Socket } from '../socket/model/socket'
import type { JobState } from './job-state'

/** What was touched, as the tape has it: every contact that was ever marked damaged, in any pass. */
export function touchedBy(state: JobState, socket: Socket | null): Touched {
  const ever = new Set(state.socket.strokes.map((s) => s.contact))
  for (const pass of state.socket.passes)
    for (const [name, mark] of Object.entries(pass.found)) if (isDamage(mark)) ever.add(name)
  const groups = new Set((socket?.contacts ?? []).filter((c) => ever.has(c.name)).map((c) => c.group))
  return {
    groups: functionGroups.filter((g) => groups.has(g)),
    contacts: ever.size,
    firmware: state.board.changed.firmware > 0,
    parts: state.parts.noted.some((p) => p.did === 'fitted'),
    cell:
      state.board.cellLog.some((c) => c.volts < 2.8) ||
      state.board.told.cells.some((c) => c.is === 'low') ||
      state.board.changed.cell > 0,
    intermittent: state.board.baselines.some((b) => b.current === 'cycling'),
    ownGraphics: !/no graphics/i.test(state.intake.ticket.cpu),
  }
}

/** What has to be proved of this job, and how it stands. */
export const proofStanding = (state: JobState, socket: Socket | null): ProofStanding =>
  standingOf(proofPlan(touchedBy(state, socket)), state.proof.results, state.board)
