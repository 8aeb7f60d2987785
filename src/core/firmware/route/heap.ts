/** A binary heap of numbers, the least by `less` on top. */
export class Heap {
  private readonly at: number[] = []
  constructor(private readonly less: (a: number, b: number) => boolean) {}

  push(item: number): void {
    const { at, less } = this
    let i = at.push(item) - 1
    while (i > 0) {
      const up = (i - 1) >> 1
      if (!less(item, at[up]!)) break
      at[i] = at[up]!
      i = up
    }
    at[i] = item
  }

  /** The least, taken out; undefined when there is none. */
  pop(): number | undefined {
    const { at, less } = this
    const top = at[0]
    const last = at.pop()
    if (last === undefined || at.length === 0) return top
    let i = 0
    for (;;) {
      let down = 2 * i + 1
      if (down >= at.length) break
      if (down + 1 < at.length && less(at[down + 1]!, at[down]!)) down++
      if (!less(at[down]!, last)) break
      at[i] = at[down]!
      i = down
    }
    at[i] = last
    return top
  }
}
