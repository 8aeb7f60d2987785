import { hex } from './image-bytes'
import { headerOf } from './inspect'
import type { Inspection } from './inspect'

/** Where a file belongs on a chip: its byte 0 after any capsule lies there; or why that is not known. */
export type Placement =
  { readonly at: number; readonly why: string } | { readonly at: null; readonly why: string }

/**
 * Where a release's bytes belong on the chip that was read. A file as large as the chip is the whole of it; a smaller
 * one is placed by the descriptor's firmware region when it is just as large, or else by its volumes when all of them
 * stand at one same distance on the chip. Otherwise nothing is assumed.
 */
export function placementOf(chip: Inspection, release: Inspection): Placement {
  const header = headerOf(release)
  const bytes = release.bytes - header
  if (bytes === chip.bytes) return { at: 0, why: 'the file is as large as the chip' }
  if (bytes > chip.bytes)
    return {
      at: null,
      why: `the file has ${hex(bytes)} bytes, more than the ${hex(chip.bytes)} that were read: it is for a larger chip, or the read was cut off`,
    }
  const region = chip.regions?.find((r) => r.name === 'firmware')
  if (region && region.to - region.from === bytes)
    return { at: region.from, why: 'the file is as large as the firmware region of the descriptor' }
  const places = new Set(
    chip.volumes
      .filter((v) => v.guid === release.volumes[0]?.guid)
      .map((v) => v.from - (release.volumes[0]!.from - header))
      .filter(
        (at) =>
          at >= 0 &&
          at + bytes <= chip.bytes &&
          release.volumes.every((r) =>
            chip.volumes.some(
              (v) => v.from === r.from - header + at && v.guid === r.guid && v.to - v.from === r.to - r.from,
            ),
          ),
      ),
  )
  const [at] = places
  return places.size === 1
    ? { at: at!, why: `its volumes stand on the chip from ${hex(at!)}` }
    : {
        at: null,
        why: `the file has ${hex(bytes)} bytes, the chip ${hex(chip.bytes)}, and nothing in either says where on the chip it belongs`,
      }
}
