import { railsRead } from '../board/slice'
import type { BoardState } from '../board/slice'
import type { StationSays } from '../board/station-says'
import { stageReached } from './model/stage'

export const triageSays: StationSays<{ readonly board: BoardState }> = {
  note: ({ board }) => {
    const baseline = board.baselines.at(-1)
    if (baseline) return stageReached(baseline).say
    return railsRead(board).size > 0 ? 'rails measured' : ''
  },
  touches: ({ board }) => ({
    cell:
      board.cellLog.some((c) => c.volts < 2.8) ||
      board.told.cells.some((c) => c.is === 'low') ||
      board.changed.cell > 0,
    cellAlone: board.changed.cell > 0 && board.changedElse === 0,
    intermittent: board.baselines.some((b) => b.current === 'cycling'),
  }),
}
