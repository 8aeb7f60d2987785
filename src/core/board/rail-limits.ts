import type { Rail } from './rail'

/** A resistance to ground that stands: the last of its rail with the CPU in, or out. */
export interface RailSeen {
  readonly rail: Rail
  readonly ohms: number
  readonly cpu: 'in' | 'out'
}

/**
 * Resistance to ground below which a rail counts as shorted, and below which it is suspect, Ω (bench default).
 * The core rail reads low with a CPU fitted.
 */
export const railLimits: Readonly<
  Record<
    Rail,
    {
      readonly shortOhm: number
      readonly lowOhm: number
      readonly shortWithCpuOhm?: number
      readonly lowWithCpuOhm?: number
    }
  >
> = {
  '12v': { shortOhm: 10, lowOhm: 60 },
  '5v': { shortOhm: 5, lowOhm: 40 },
  '3v3': { shortOhm: 5, lowOhm: 40 },
  standby: { shortOhm: 10, lowOhm: 60 },
  vcore: { shortOhm: 0.8, lowOhm: 2, shortWithCpuOhm: 0.15, lowWithCpuOhm: 0.4 },
  vmem: { shortOhm: 4, lowOhm: 20 },
  vsys: { shortOhm: 1.5, lowOhm: 5, shortWithCpuOhm: 0.6, lowWithCpuOhm: 1.5 },
}

/** From here a rail reads open, Ω: a whole rail never does, so the probe was off or the rail is (bench default). */
export const OPEN_OHM = 1e6

export function railState(reading: RailSeen): 'short' | 'low' | 'good' {
  const limit = railLimits[reading.rail]
  const short = reading.cpu === 'in' ? (limit.shortWithCpuOhm ?? limit.shortOhm) : limit.shortOhm
  const low = reading.cpu === 'in' ? (limit.lowWithCpuOhm ?? limit.lowOhm) : limit.lowOhm
  return reading.ohms <= short ? 'short' : reading.ohms < low ? 'low' : 'good'
}
