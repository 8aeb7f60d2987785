import type { Line } from './line'
import type { KindSpec } from './slice'

/** A line as it is read today: an older body, or an older kind, in the words of now. */
export function asReadToday(specs: ReadonlyMap<string, KindSpec<unknown>>, line: Line): Line {
  const now = specs.get(line.kind)?.upcast?.(line.body, line.v)
  return now ? { ...line, ...now } : line
}
