import { lastCounts } from './count'
import type { PartsState } from './slice'

/** The iron was last at the board: on which line, and what it did. */
export interface Iron {
  readonly seq: number
  readonly what: string
}

/**
 * Why a photo is taken before the iron: there is none, or none since the iron was there. Compared afterwards, it shows what
 * went missing meanwhile. Null where there is one.
 */
export function photoOwed(photos: readonly { readonly seq: number }[], iron: Iron | null): string | null {
  const last = photos.at(-1)?.seq ?? 0
  if (last === 0) return 'No photo of this board yet'
  return iron && iron.seq > last ? `No photo since ${iron.what}` : null
}

/** Places that were counted before the iron was last there, and not since: hot air carries small parts off. */
export const countsOwed = (parts: Pick<PartsState, 'counts'>, iron: Iron | null): PartsState['counts'] =>
  iron === null ? [] : lastCounts(parts).filter((c) => c.seq < iron.seq)
