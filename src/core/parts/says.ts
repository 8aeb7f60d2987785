import type { StationSays } from '../board/station-says'
import { openDeferred } from './slice'
import type { PartsState } from './slice'

export const partsSays: StationSays<{ readonly parts: PartsState }> = {
  note: ({ parts }) => (parts.noted.length > 0 ? `${parts.noted.length} noted` : ''),
  blocksHandBack: ({ parts }) =>
    openDeferred(parts).map((d) => ({
      text: `Left for later, neither done nor signed off: ${d.text}`,
      at: { station: 'parts', part: 'deferred' } as const,
    })),
  touches: ({ parts }) => ({ parts: parts.noted.some((p) => p.did === 'fitted') }),
}
