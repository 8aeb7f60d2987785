import { normalDraw, seeded } from '../../maths/seeded'
import type { Trace } from './current-trace'

/** A trace by stretches of seconds at a level, with meter noise. */
export function drawn(
  stretches: readonly (readonly [seconds: number, amps: number])[],
  rate = 200,
  seed = 1,
  noise = 0.008,
): Trace {
  const draw = seeded(seed)
  const amps = stretches.flatMap(([s, a]) =>
    Array.from({ length: Math.round(s * rate) }, () => a + noise * normalDraw(draw)),
  )
  return { amps: Float64Array.from(amps), seconds: Float64Array.from(amps, (_, i) => i / rate) }
}
