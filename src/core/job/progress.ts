import { railsRead } from '../board/slice'
import { stations } from '../board/station'
import type { Station } from '../board/station'
import { openOffers } from '../intake/slice'
import { isDamage } from '../socket/damage/mark'
import { currentPass } from '../socket/slice'
import type { Socket } from '../socket/model/socket'
import { stageReached } from '../triage/model/stage'
import type { StationMark } from '../work/slice'
import type { JobState } from './job-state'
import { proofStanding } from './proof-owed'

export interface StationProgress extends Pick<StationMark, 'mark'> {
  readonly station: Station
  readonly note: string
}

/** The seven stations with their marks and a few words each. */
export function progress(state: JobState, field: Socket | null): StationProgress[] {
  const pass = currentPass(state.socket)
  const baseline = state.board.baselines.at(-1)
  const { owed } = proofStanding(state, field)
  const measured = railsRead(state.board).size > 0
  const notes: Record<Station, string> = {
    intake:
      openOffers(state.intake).length > 0
        ? 'offer not answered'
        : state.intake.consent
          ? ''
          : 'not signed yet',
    triage: baseline ? stageReached(baseline).say : measured ? 'rails measured' : '',
    socket: pass
      ? `pass ${state.socket.passes.length}, ${Object.values(pass.marks).filter(isDamage).length} marked`
      : '',
    firmware: state.firmware.steps.findLast((f) => f.version)?.version ?? '',
    parts: state.parts.noted.length > 0 ? `${state.parts.noted.length} noted` : '',
    proof:
      baseline || Object.keys(state.proof.results).length > 0
        ? owed === 0
          ? 'all done'
          : `${owed} ${owed === 1 ? 'test' : 'tests'} owed`
        : '',
    'hand-back': state.handBack.done?.outcome ?? '',
  }
  return stations.map((station) => {
    const { mark, why } = state.work.marks[station]
    return { station, mark, note: mark === 'passed over' ? why : notes[station] }
  })
}
