import { closedBy } from '../board/gate-reason'
import type { PowerGate } from '../board/gate-reason'
import { unaccounted } from '../board/slice'
import { stations } from '../board/station'
import type { Station } from '../board/station'
import type { Step } from '../board/step'
import { firmwareStep } from '../firmware/next-step'
import { handBackStep } from '../hand-back/next-step'
import { intakeStep } from '../intake/next-step'
import { partsStep } from '../parts/next-step'
import { proofStep } from '../proof/next-step'
import { socketStep } from '../socket/next-step'
import type { SocketWork } from '../socket/next-step'
import type { Socket } from '../socket/model/socket'
import type { Belief } from '../triage/reason/belief'
import { owesRails, triageStep } from '../triage/next-step'
import type { AdviceSetting } from './advice-setting'
import { firmwareView } from './firmware-view'
import { lastIron } from './last-iron'
import { handBackBlockers, proofStanding } from './stations-say'
import type { JobState } from './job-state'

/** What the adviser looks at: the tape, the gate, and what is slow to compute; null while that is under way. */
export interface Advised {
  readonly state: JobState
  readonly field: Socket | null
  readonly gate: PowerGate
  readonly belief: Belief | null
  readonly setting: AdviceSetting
  readonly work: SocketWork | null
}

/** What each station would do next by itself. */
const stepOf: Readonly<Record<Station, (a: Advised) => Step>> = {
  intake: ({ state }) => intakeStep(state.intake),
  triage: ({ state, gate, belief }) => triageStep(state.board, gate, belief),
  socket: ({ state, field, gate, work }) => socketStep(state.socket, field, gate, work),
  firmware: ({ state, gate }) => firmwareStep(firmwareView(state), closedBy(gate)?.text ?? null),
  parts: ({ state }) => partsStep(state.parts, lastIron(state)),
  proof: ({ state, field, gate, setting }) => proofStep(proofStanding(state, field, setting), gate),
  'hand-back': ({ state, field, setting }) =>
    handBackStep(handBackBlockers(state), proofStanding(state, field, setting).owed),
}

/** What comes before the work of any station: the job is over, or something is loose. */
function firstOfAll({ state }: Advised): Step | null {
  const { done } = state.handBack
  if (done)
    return {
      station: 'hand-back',
      say: `Handed back: ${done.outcome}.`,
      why: 'The owner’s feedback can still be entered at hand-back.',
    }
  const [loose, ...more] = unaccounted(state.board)
  return loose
    ? {
        station: 'socket',
        part: 'ledger',
        say: `Account for ${loose.what}: find it, or say where it went.`,
        why: `Do not power before it is accounted for${more.length > 0 ? `; ${more.length} more ${more.length === 1 ? 'is' : 'are'} loose` : ''}.`,
      }
    : null
}

/** The station where the work stands now. */
function stationNow(a: Advised): Station {
  const { state, field, gate, belief } = a
  const isOpen = (station: Station) => {
    const { mark } = state.work.marks[station]
    return mark === 'untouched' || mark === 'open'
  }
  if (!state.intake.consent && isOpen('intake')) return 'intake'
  if (isOpen('triage') && (owesRails(gate) || !state.board.power.lookedOutside)) return 'triage'
  const closed = closedBy(gate)
  if (closed) return closed.at.station
  if (isOpen('triage') && belief?.verdict?.is === 'found') return 'triage'
  if (field && isOpen('socket')) return 'socket'
  return stations.find(isOpen) ?? 'hand-back'
}

/** THE next step of a job: the bench list, the header of every station and the command line say this one. */
export const nextStep = (a: Advised): Step => firstOfAll(a) ?? stepOf[stationNow(a)](a)

/** What to do next at a station: what comes before everything else, or what it would do by itself. */
export function stepAt(station: Station, a: Advised): Step {
  const first = firstOfAll(a)
  if (first && (first.station === 'hand-back' || station !== 'intake')) return first
  return stepOf[station](a)
}
