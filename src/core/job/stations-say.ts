import { stations } from '../board/station'
import type { Station } from '../board/station'
import type { ShelfItem } from '../board/shelf-items'
import type { BoardState } from '../board/slice'
import { untouched } from '../board/station-says'
import type { StationSays, Touched } from '../board/station-says'
import type { Blocker } from '../board/step'
import { firmwareSays } from '../firmware/says'
import { handBackSays } from '../hand-back/says'
import { intakeSays } from '../intake/says'
import { partsSays } from '../parts/says'
import { doubtsOf } from '../proof/doubt'
import { proofPlan, standingOf } from '../proof/plan'
import type { ProofStanding } from '../proof/plan'
import { proofSays } from '../proof/says'
import type { Socket } from '../socket/model/socket'
import { socketSays } from '../socket/says'
import { triageSays } from '../triage/says'
import type { StationMark } from '../work/slice'
import type { RepairTally } from '../triage/model/repair-record'
import { nothingRound } from './advice-setting'
import type { AdviceSetting } from './advice-setting'
import { gateOf } from './gate'
import type { JobState } from './job-state'
import { lastStart, lastTried } from './starts-seen'
import { suspectedOf } from './suspected'

/** A job as its stations look at it. */
interface JobView extends JobState {
  readonly field: Socket | null
  /** What came of repairs, over all jobs. */
  readonly repairs: readonly RepairTally[]
  readonly standing: () => ProofStanding
}

const says: Readonly<Record<Station, StationSays<JobView>>> = {
  intake: intakeSays,
  triage: triageSays,
  socket: socketSays,
  firmware: firmwareSays,
  parts: partsSays,
  proof: proofSays,
  'hand-back': handBackSays,
}

const viewOf = (state: JobState, field: Socket | null, setting: AdviceSetting): JobView => ({
  ...state,
  field,
  repairs: setting.repairs,
  standing: () => proofStanding(state, field, setting),
})

/** What was touched, as all stations together have it, and what is still suspected. */
export function touchedBy(state: JobState, field: Socket | null, setting: AdviceSetting): Touched {
  const view = viewOf(state, field, setting)
  const cameUp = lastTried(state)?.came ?? false
  return stations.reduce<Touched>((all, s) => ({ ...all, ...says[s].touches?.(view) }), {
    ...untouched,
    cameUp,
    // What keeps a board dark is triage’s to find, and not a proof’s.
    suspected: cameUp ? suspectedOf(state, field, setting) : [],
  })
}

/** What has to be proved of this job, and how it stands. */
export function proofStanding(state: JobState, field: Socket | null, setting: AdviceSetting): ProofStanding {
  const { shelf } = setting
  const touched = touchedBy(state, field, setting)
  const atHand = shelf && new Set([...shelf, ...onTheBoard(state.board)])
  const { results, temperatures } = state.proof
  const made = [...Object.keys(results), ...(temperatures.length > 0 ? ['temperature'] : [])]
  const planned = proofPlan(touched, made)
  return standingOf(planned, doubtsOf(touched), state.proof, state.board, {
    start: lastStart(state),
    closed: gateOf(state, field).lamp === 'do not power',
    ...(atHand ? { atHand } : {}),
  })
}

/** What of a shelf the board’s own things can serve for. */
function onTheBoard({ fitted }: BoardState): ShelfItem[] {
  const items: (ShelfItem | false)[] = [
    fitted.modules.length > 0 && 'known-good module',
    fitted.modules.length > 1 && 'second known-good module',
    fitted.drive !== null && 'known-good drive',
    fitted.card !== null && 'known-good card',
  ]
  return items.filter((item) => item !== false)
}

/** What keeps the board from being handed back, station by station. */
export function handBackBlockers(state: JobState): readonly Blocker[] {
  const view = viewOf(state, null, nothingRound)
  return stations.flatMap((s) => says[s].blocksHandBack?.(view) ?? [])
}

export interface StationProgress extends Pick<StationMark, 'mark'> {
  readonly station: Station
  readonly note: string
}

/** The seven stations with their marks and a few words each. */
export function progress(state: JobState, field: Socket | null, setting: AdviceSetting): StationProgress[] {
  const view = viewOf(state, field, setting)
  return stations.map((station) => {
    const { mark, why } = state.work.marks[station]
    return { station, mark, note: mark === 'passed over' ? why : says[station].note(view) }
  })
}
