import type { BoardState } from '../board/slice'
import type { StationSays } from '../board/station-says'
import type { ProofStanding } from './plan'
import type { ProofState } from './slice'

interface View {
  readonly proof: ProofState
  readonly board: BoardState
  readonly standing: () => ProofStanding
}

export const proofSays: StationSays<View> = {
  note: ({ proof, board, standing }) => {
    if (board.baselines.length === 0 && Object.keys(proof.results).length === 0) return ''
    const { owed } = standing()
    return owed === 0 ? 'all done' : `${owed} ${owed === 1 ? 'test' : 'tests'} owed`
  },
}
