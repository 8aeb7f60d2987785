import type { BoardState } from '../board/slice'
import type { StationSays } from '../board/station-says'
import type { FirmwareState } from './slice'

export const firmwareSays: StationSays<{ readonly firmware: FirmwareState; readonly board: BoardState }> = {
  note: ({ firmware }) => firmware.steps.findLast((f) => f.version)?.version ?? '',
  touches: ({ board }) => ({ firmware: board.changed.firmware > 0 }),
}
