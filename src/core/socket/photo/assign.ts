/**
 * One-to-one assignment of least total cost.
 * @param cost rows × columns, rows ≤ columns; Infinity where a pair is out of the question
 * @returns the column of each row
 * Source: Kuhn (1955), Munkres (1957), as shortest augmenting paths (Jonker & Volgenant 1987); O(rows² · columns).
 * @throws RangeError if there are more rows than columns
 */
export function assign(cost: readonly Float64Array[]): Int32Array {
  const n = cost.length
  const m = cost[0]?.length ?? 0
  if (n > m) throw new RangeError(`more rows (${n}) than columns (${m})`)
  const BIG = 1e9
  const u = new Float64Array(n + 1)
  const v = new Float64Array(m + 1)
  const rowOf = new Int32Array(m + 1)
  const way = new Int32Array(m + 1)
  for (let i = 1; i <= n; i++) {
    rowOf[0] = i
    let column = 0
    const least = new Float64Array(m + 1).fill(Infinity)
    const used = new Uint8Array(m + 1)
    do {
      used[column] = 1
      const row = rowOf[column]!
      let delta = Infinity
      let next = 0
      for (let j = 1; j <= m; j++) {
        if (used[j]) continue
        const c = Math.min(BIG, cost[row - 1]![j - 1]!) - u[row]! - v[j]!
        if (c < least[j]!) {
          least[j] = c
          way[j] = column
        }
        if (least[j]! < delta) {
          delta = least[j]!
          next = j
        }
      }
      for (let j = 0; j <= m; j++)
        if (used[j]) {
          u[rowOf[j]!]! += delta
          v[j]! -= delta
        } else least[j]! -= delta
      column = next
    } while (rowOf[column] !== 0)
    do {
      const before = way[column]!
      rowOf[column] = rowOf[before]!
      column = before
    } while (column !== 0)
  }
  const columnOf = new Int32Array(n)
  for (let j = 1; j <= m; j++) if (rowOf[j]! > 0) columnOf[rowOf[j]! - 1] = j - 1
  return columnOf
}
