import { hex, SECTOR } from './image-bytes'
import { headerOf } from './inspect'
import type { Inspection } from './inspect'
import { ofOwner } from './laid'
import type { Laid } from './laid'
import type { Unsound } from './soundness'
import { VOLUME_HEADER } from './volume'

/** What the release has on the chip and the chip has lost: headers of volumes, the descriptor, what the board’s own begins with. */
export const goneFrom = (laid: Laid, chip: Inspection, file: Inspection): Unsound[] => [
  ...lostStructures(laid, chip, file),
  ...erasedOwn(laid),
]

/** Volumes and the descriptor of the release that are not on the chip, though nothing else stands in their place. */
function lostStructures({ at }: Laid, chip: Inspection, file: Inspection): Unsound[] {
  const shift = at - headerOf(file)
  const lost: Unsound[] = file.volumes.flatMap((v) => {
    const [from, to] = [v.from + shift, v.to + shift]
    return chip.volumes.some((c) => c.from < to && c.to > from && (c.headerGood || c.from !== from))
      ? []
      : [{ from, to: from + VOLUME_HEADER, text: `the header of the volume at ${hex(from)}` }]
  })
  const regions = ({ regions: all }: Inspection, by: number) =>
    all && JSON.stringify(all.map((r) => [r.name, r.from + by]))
  if (file.regions && regions(file, shift) !== regions(chip, 0))
    lost.unshift({ from: at, to: at + SECTOR, text: 'the flash descriptor' })
  return lost
}

/** Parts of the board’s own that the release fills and that are erased on the chip. */
function erasedOwn(laid: Laid): Unsound[] {
  const { release, chip, at } = laid
  return ofOwner(laid, 'own').flatMap((s) => {
    const filled = release.subarray(s.from, s.to).some((b) => b !== 0xff)
    const erased = chip.subarray(at + s.from, at + s.to).every((b) => b === 0xff)
    const [from, to] = [at + s.from, at + s.to]
    return filled && erased ? [{ from, to, text: `what stands from ${hex(from)} is erased` }] : []
  })
}
