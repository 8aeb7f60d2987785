import { placeOf } from '../board/hazard'
import type { BoardState } from '../board/slice'
import type { FirmwareState } from './slice'

/** What the firmware station reads of a job beside its own lines. */
export interface FirmwareView {
  readonly firmware: FirmwareState
  readonly board: BoardState
  /** Line on which a part was last fitted; 0 where none was. */
  readonly partFitted: number
  /** Line on which the iron or hot air was last at the board; 0 where it never was. */
  readonly iron: number
  /** The last count of the small parts round the chip; null where nobody counted. */
  readonly counted: { readonly seq: number; readonly count: number; readonly of?: number } | null
  readonly diskLock: 'unknown' | 'no' | 'yes, owner told'
  /** Lines of the photos of the board, in order. */
  readonly photos: readonly number[]
}

/** Whether anybody looked round the chip, and what stands against it there. */
export function roundTheChip({ board, partFitted }: FirmwareView): 'not looked' | 'clear' | 'wrong' {
  const last = board.looks.findLast((l) => placeOf(l.what) === 'round the firmware chip')
  if (!last) return 'not looked'
  return last.clear || partFitted > last.seq ? 'clear' : 'wrong'
}
