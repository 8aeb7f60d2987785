import type { StationSays } from '../board/station-says'
import type { PartsState } from './slice'

export const partsSays: StationSays<{ readonly parts: PartsState }> = {
  note: ({ parts }) => (parts.noted.length > 0 ? `${parts.noted.length} noted` : ''),
  touches: ({ parts }) => ({ parts: parts.noted.some((p) => p.did === 'fitted') }),
}
