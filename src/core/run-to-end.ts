/** Runs a computation that yields its progress to its end, where nobody waits to see it or to drop it. */
export function runToEnd<T>(work: Generator<number, T>): T {
  for (;;) {
    const { done, value } = work.next()
    if (done) return value
  }
}
