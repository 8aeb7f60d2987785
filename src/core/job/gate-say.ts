import type { GateReason } from '../board/gate-reason'
import type { Station } from '../board/station'

/** Says one reason of the gate, and where and how it is cleared. */
export type Say = (
  level: GateReason['level'],
  code: string,
  text: string,
  station: Station,
  part: string,
  mend: string,
) => unknown

/** The first three of several, and how many more. */
export const some = (names: readonly string[]) =>
  names.length <= 3 ? names.join(', ') : `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`
