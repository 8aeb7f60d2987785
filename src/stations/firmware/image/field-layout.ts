import { BLOCK } from '@/core/firmware/image/entropy'
import type { OwnedStretch, Owner } from '@/core/firmware/image/owner'

/** Cells in a row of the byte field. */
export const COLUMNS = 64
/** Most cells the field is drawn with: a larger image has more bytes in each. */
const MOST_CELLS = 2048
/** Entropy from which a block holds something, bits a byte. */
const LEAST_PACKED = 1

export interface Cell {
  readonly from: number
  readonly to: number
  /** Whose most of its bytes are. */
  readonly owner: Owner
  readonly erased: boolean
  /** Bits a byte, 0 to 8, the mean of its blocks. */
  readonly entropy: number
  /** Bytes in it that differ from the image beside it. */
  readonly differing: number
}

/** An image as rows of cells, each of one block of 4 KiB or a power of two of them. */
export function cellsOf(
  bytes: number,
  owners: readonly OwnedStretch[],
  entropy: Float32Array,
  differing: Uint16Array | null,
): Cell[] {
  let blocksEach = 1
  while (bytes / (BLOCK * blocksEach) > MOST_CELLS) blocksEach *= 2
  const size = BLOCK * blocksEach
  const cells: Cell[] = []
  let s = 0
  for (let from = 0; from < bytes; from += size) {
    const to = Math.min(bytes, from + size)
    while (s < owners.length - 1 && owners[s]!.to <= from) s++
    const count = { code: 0, empty: 0, own: 0, unknown: 0 }
    let erased = 0
    for (let i = s; i < owners.length && owners[i]!.from < to; i++) {
      const part = Math.min(to, owners[i]!.to) - Math.max(from, owners[i]!.from)
      count[owners[i]!.owner] += part
      if (owners[i]!.kind === 'erased' || owners[i]!.kind === 'free') erased += part
    }
    const most = (Object.keys(count) as Owner[]).reduce((a, b) => (count[b] > count[a] ? b : a))
    const [first, end] = [from / BLOCK, Math.ceil(to / BLOCK)]
    let [mean, other] = [0, 0]
    for (let b = first; b < end; b++) {
      mean += (entropy[b] ?? 0) / (end - first)
      other += differing?.[b] ?? 0
    }
    // What should be free and is not is nobody's that is known.
    const strange = mean > LEAST_PACKED && (most === 'empty' || erased * 2 > to - from)
    cells.push({
      from,
      to,
      owner: strange ? 'unknown' : most,
      erased: !strange && erased * 2 > to - from,
      entropy: mean,
      differing: other,
    })
  }
  return cells
}
