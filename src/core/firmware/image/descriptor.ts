import { hex, SECTOR } from './image-bytes'
import type { ImageBytes, ImageFinding } from './image-bytes'

/** The regions a flash descriptor can name, in the order of its table. */
export const regionNames = [
  'descriptor',
  'firmware',
  'management',
  'network address',
  'board data',
  'second firmware',
] as const
export type RegionName = (typeof regionNames)[number]

export interface Region {
  readonly name: RegionName
  readonly from: number
  readonly to: number
}

const SIGNATURE = 0x0ff0a55a

/**
 * The regions of a chip whose first sector, at `start`, is a flash descriptor; null when it is none.
 * Source: the published layout: signature 0x0FF0A55A at byte 16, then the map; its second byte, times sixteen, is
 * where the regions stand, each with base and limit in units of 4 KiB; a base above its limit is an unused one.
 */
export function regionsOf(bytes: ImageBytes, start: number, findings: ImageFinding[]): Region[] | null {
  if (!bytes.has(start, SECTOR) || bytes.u32(start + 16) !== SIGNATURE) return null
  const table = ((bytes.u32(start + 20) >>> 16) & 0xff) << 4
  if (table === 0 || table + 4 * regionNames.length > SECTOR) {
    findings.push({
      at: start + 20,
      text: `the descriptor points to a region table at ${hex(table)}, outside of itself`,
    })
    return []
  }
  const regions = regionNames.flatMap((name, i): Region[] => {
    const at = start + table + 4 * i
    const word = bytes.u32(at)
    const from = start + (word & 0x7fff) * SECTOR
    const to = start + (((word >>> 16) & 0x7fff) + 1) * SECTOR
    if (from >= to) return []
    if (to > bytes.length)
      findings.push({
        at,
        cutOff: true,
        text: `the ${name} region ends at ${hex(to)}; the image ends at ${hex(bytes.length)}: it is cut off, or another chip’s`,
      })
    return from < bytes.length ? [{ name, from, to: Math.min(to, bytes.length) }] : []
  })
  const sorted = [...regions].sort((a, b) => a.from - b.from)
  for (const [i, region] of sorted.entries()) {
    const before = sorted[i - 1]
    if (before && region.from < before.to)
      findings.push({
        at: region.from,
        text: `the ${region.name} region begins at ${hex(region.from)}, inside the ${before.name} region`,
      })
  }
  return sorted
}
