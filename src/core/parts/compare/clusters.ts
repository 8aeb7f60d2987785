import type { Unlike } from './blocks'

/** Blocks that lie together and differ more than blocks like them usually do on this pair of photos. */
export interface Cluster {
  readonly blocks: readonly number[]
  /** How far beyond the usual the worst of them is, in spreads of the usual. */
  readonly beyond: number
  /** Bounds, working px. */
  readonly x0: number
  readonly y0: number
  readonly x1: number
  readonly y1: number
}

/** Kinds of blocks by their contrast; and shares of each that usual is told by. */
const BINS = 24
const USUAL = 0.4
const BELOW = 0.1
/** Least spread of what is usual, levels. */
const LEAST_SPREAD = 1.2

/**
 * How far each block differs beyond what blocks of like contrast usually differ by on this pair: most of a board is as it
 * should be, so the pair itself says what light, focus and lots do. Its spread is taken from those that differ less: of the
 * others, what stands up would make it so wide on a tilted pair that no small part is beyond it.
 */
export function beyondUsual({ by, contrast }: Unlike): Float32Array {
  const seen = [...by.keys()].filter((k) => !Number.isNaN(by[k]!)).sort((a, b) => contrast[a]! - contrast[b]!)
  const beyond = new Float32Array(by.length)
  for (let bin = 0; bin < BINS; bin++) {
    const some = seen.slice(
      Math.floor((bin * seen.length) / BINS),
      Math.floor(((bin + 1) * seen.length) / BINS),
    )
    const sorted = Float32Array.from(some, (k) => by[k]!).sort()
    const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))] ?? 0
    const spread = Math.max(LEAST_SPREAD, at(USUAL) - at(BELOW))
    for (const k of some) beyond[k] = (by[k]! - at(USUAL)) / spread
  }
  return beyond
}

/** Clusters of blocks beyond `low` that hold one beyond `high`, where there is something to see. */
export function clustersOf(
  unlike: Unlike,
  beyond: Float32Array,
  { high, low, contrast }: { high: number; low: number; contrast: number },
): readonly Cluster[] {
  const { columns, rows, stepPx } = unlike
  const taken = new Uint8Array(beyond.length)
  const clusters: Cluster[] = []
  for (let from = 0; from < beyond.length; from++) {
    if (taken[from] || beyond[from]! < high || unlike.contrast[from]! < contrast) continue
    const blocks = [from]
    taken[from] = 1
    for (let i = 0; i < blocks.length; i++) {
      const [c, r] = [blocks[i]! % columns, Math.floor(blocks[i]! / columns)]
      for (let dr = -1; dr <= 1; dr++)
        for (let dc = -1; dc <= 1; dc++) {
          const [x, y] = [c + dc, r + dr]
          const k = y * columns + x
          if (x < 0 || y < 0 || x >= columns || y >= rows || taken[k] || beyond[k]! < low) continue
          if (unlike.contrast[k]! < contrast) continue
          taken[k] = 1
          blocks.push(k)
        }
    }
    const xs = blocks.map((k) => (k % columns) * stepPx)
    const ys = blocks.map((k) => Math.floor(k / columns) * stepPx)
    clusters.push({
      blocks,
      beyond: Math.max(...blocks.map((k) => beyond[k]!)),
      x0: Math.min(...xs),
      y0: Math.min(...ys),
      x1: Math.max(...xs),
      y1: Math.max(...ys),
    })
  }
  return clusters
}
