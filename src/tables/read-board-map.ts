import { indexMap } from '@/core/parts/board-map/board-map'
import type { Placement } from '@/core/parts/board-map/board-map'
import type { MapFile } from '@/core/parts/board-map/map-files'
import { readNetlist } from '@/core/parts/board-map/netlist'
import { readPlacements } from '@/core/parts/board-map/placement'
import type { Finding } from '@/core/tables/finding'
import { readCsv } from './read-csv'

/** A placement list in any of the shapes that programs write. */
export function placementsIn(text: string): {
  readonly placements: readonly Placement[]
  readonly findings: readonly Finding[]
} {
  const { rows, columns } = readCsv(text)
  return readPlacements(rows, columns)
}

/** What a file of a board’s map comes to: what it holds in a line, or null where nothing of it can be placed. */
export function checkMapFile(
  kind: MapFile,
  text: string,
): { readonly say: string | null; readonly findings: readonly Finding[] } {
  if (kind === 'placements') {
    const { placements, findings } = placementsIn(text)
    return { say: placements.length > 0 ? `${placements.length} parts` : null, findings }
  }
  const { map, findings } = readNetlist(text)
  if (!map) return { say: null, findings }
  const { parts, nets } = indexMap(map)
  return { say: `${parts.size} parts, ${nets.size} nets, ${map.points.length} places`, findings }
}
