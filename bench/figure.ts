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

export const mean = (values: readonly number[]): number =>
  values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)

/** How often what was guessed came true, by tenths of how likely it was said to be. */
export function decileFigures(guesses: readonly { readonly odds: number; readonly right: boolean }[]): void {
  for (let d = 0; d < 10; d++) {
    const some = guesses.filter((g) => Math.min(9, Math.floor(g.odds * 10)) === d)
    if (some.length < 30) continue
    const [said, was] = [mean(some.map((g) => g.odds)), mean(some.map((g) => Number(g.right)))]
    line(
      `  likeliest fault said to be ${percent(said)}, of ${some.length}`,
      percent(was),
      `± 5 points: ${Math.abs(said - was) <= 0.05 ? 'met' : 'MISSED'}`,
    )
  }
}
