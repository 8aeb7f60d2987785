import { BLOCK } from './entropy'
import type { Stretch } from './inspect'

/** Bytes that differ, from the first up to the one after the last; those between that are alike included. */
export interface Run {
  readonly from: number
  readonly to: number
}

/** How a stretch of the first image compares with what stands there in the second. */
export type Compared<S extends Stretch> = S & {
  readonly differing: number
  /** The first byte that differs; null where none does. */
  readonly first: number | null
}

export interface Comparison<S extends Stretch = Stretch> {
  /** Bytes both have. */
  readonly compared: number
  /** Bytes only the longer one has. */
  readonly beyond: number
  readonly differing: number
  /** Bytes that differ in each block of 4 KiB. */
  readonly blocks: Uint16Array
  /** The first runs that differ; more than `MOST_RUNS` are not listed. */
  readonly runs: readonly Run[]
  readonly stretches: readonly Compared<S>[]
}

export const MOST_RUNS = 2000
/** Bytes alike between two that differ which make them two runs. */
const APART = 64

/**
 * Two images laid upon one another from their first byte, stretch by stretch of the first.
 * @param stretches of the first, every byte of it in one of them
 */
export function compare<S extends Stretch>(
  first: Uint8Array,
  second: Uint8Array,
  stretches: readonly S[],
): Comparison<S> {
  const compared = Math.min(first.length, second.length)
  const blocks = new Uint16Array(Math.ceil(compared / BLOCK))
  const runs: { from: number; to: number }[] = []
  let differing = 0
  let last: { from: number; to: number } | null = null
  const byStretch = stretches.map((stretch): Compared<S> => {
    const before = differing
    let begin: number | null = null
    const to = Math.min(stretch.to, compared)
    for (let at = stretch.from; at < to; at++) {
      if (first[at] === second[at]) continue
      differing++
      blocks[(at / BLOCK) | 0]!++
      begin ??= at
      if (last && at - last.to < APART) last.to = at + 1
      else {
        last = { from: at, to: at + 1 }
        if (runs.length < MOST_RUNS) runs.push(last)
      }
    }
    return { ...stretch, differing: differing - before, first: begin }
  })
  return {
    compared,
    beyond: Math.abs(first.length - second.length),
    differing,
    blocks,
    runs,
    stretches: byStretch,
  }
}
