import { performance } from 'node:perf_hooks'

/** One measured figure: the middle and the slow end of its samples, and the target if there is one. */
export interface Figure {
  readonly what: string
  readonly median: number
  readonly p95: number
  readonly unit: string
  readonly target: number | null
}

export const quantile = (sorted: readonly number[], q: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!

export function figure(
  what: string,
  samples: readonly number[],
  unit: string,
  target: number | null,
): Figure {
  const sorted = [...samples].sort((a, b) => a - b)
  return { what, median: quantile(sorted, 0.5), p95: quantile(sorted, 0.95), unit, target }
}

/** What some work takes, the first time left out. */
export function timed(what: string, target: number | null, work: () => unknown, runs = 15): Figure {
  work()
  const samples = Array.from({ length: runs }, () => {
    const began = performance.now()
    work()
    return performance.now() - began
  })
  return figure(what, samples, 'ms', target)
}

/** One figure that is no series of samples: what, what it came to, and the target. */
export const line = (what: string, got: string, target = ''): void =>
  console.log(`${what.padEnd(62)} ${got.padStart(17)}${target && `  target ${target}`}`)
export const percent = (share: number): string => `${(100 * share).toFixed(1)} %`
