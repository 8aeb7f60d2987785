import { isUsual } from './rail'
import type { OwnRail, Rail, UsualRail } from './rail'

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
    UsualRail,
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

/** Share of a good board's ohms below which a rail is low (bench default). */
const LOW_SHARE = 0.5
/** What leads and probes may add or hide, Ω (bench default). */
export const LEADS_OHM = 0.3
/** Below what a good board reads as low. */
export const lowBeside = (goodOhms: number): number => LOW_SHARE * goodOhms - LEADS_OHM

/** Of a rail of the board’s own: the share of a good board’s ohms up to which it is shorted, but at most so many Ω (bench default). */
const OWN_SHORT = { share: 0.12, most: 10 } as const
/** What no good rail reads low at, however little a good board reads, Ω (bench default). */
const OWN_LOW_LEAST = 1
/** Of a rail nobody has a figure of: hardly any but the core’s reads below an ohm (bench default). */
const UNKNOWN_RAIL = { short: 1, low: 5 } as const

/** Ohms up to which a rail is shorted, and below which it is low. */
export function limitsOf(
  rail: Rail,
  cpu: 'in' | 'out',
  own: readonly OwnRail[],
): { readonly short: number; readonly low: number } {
  if (isUsual(rail)) {
    const { shortOhm, lowOhm, shortWithCpuOhm, lowWithCpuOhm } = railLimits[rail]
    return cpu === 'in'
      ? { short: shortWithCpuOhm ?? shortOhm, low: lowWithCpuOhm ?? lowOhm }
      : { short: shortOhm, low: lowOhm }
  }
  const good = own.find((r) => r.rail === rail)
  if (!good) return UNKNOWN_RAIL
  const ohms = cpu === 'in' ? (good.ohmsIn ?? good.ohmsOut) : good.ohmsOut
  return {
    short: Math.min(OWN_SHORT.most, Math.max(LEADS_OHM, OWN_SHORT.share * ohms)),
    low: Math.max(OWN_LOW_LEAST, lowBeside(ohms)),
  }
}

export function railState(reading: RailSeen, own: readonly OwnRail[]): 'short' | 'low' | 'good' {
  const { short, low } = limitsOf(reading.rail, reading.cpu, own)
  return reading.ohms <= short ? 'short' : reading.ohms < low ? 'low' : 'good'
}
