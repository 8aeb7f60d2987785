import type { Problem } from './search'

/**
 * Releases that some sequence of ways can bring into the chip, whatever it costs and with every CPU at once: none beyond
 * them can be the end of a route.
 */
export function reachable({ releases: V, cpus: C, starts, files, ways, start }: Problem): Uint8Array {
  const running = (v: number) => v >= 0 && starts.subarray(v * C, (v + 1) * C).includes(1)
  const reached = new Uint8Array(V)
  const open = [start.release]
  const bring = (v: number) => {
    if (v < 0 || reached[v] === 1) return
    reached[v] = 1
    open.push(v)
  }
  bring(start.release)
  for (let v = open.pop(); v !== undefined; v = open.pop())
    for (const way of ways) {
      if (way.from >= 0 && v < way.from) continue
      if (way.kind === 'second chip') {
        bring(way.holds)
        continue
      }
      if (way.kind === 'updater' && !running(v)) continue
      if (way.kind === 'recovery' && !running(way.holds)) continue
      for (const { gives, needs } of files)
        if ((!way.stepping || needs < 0 || v >= needs) && (way.downgrades || gives > v)) bring(gives)
    }
  return reached
}
