/** Median without disturbing the order; of an even number the mean of the middle two, 0 of nothing. */
export function median(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort()
  const n = sorted.length
  return n === 0 ? 0 : n % 2 === 1 ? sorted[n >> 1]! : (sorted[(n >> 1) - 1]! + sorted[n >> 1]!) / 2
}
