import { benchBeam, rootStress, stiffness } from './contact-force'
import type { Beam } from './contact-force'

export const replacements = ['leave', 'stub raise', 'transplant', 'whole socket', 'exchange'] as const
export type Replacement = (typeof replacements)[number]

/** What is wanted, and what the shop has for it. Money in minor units. */
export interface ReplacementQuestion {
  /** Contacts without a tip whose beam stands, and contacts that are gone altogether. */
  readonly stubs: number
  readonly gone: number
  /** Odds that the board runs as it stands, and with all of them working again. */
  readonly runsNow: number
  readonly runsMended: number
  readonly boardMinor: number
  readonly rateMinorPerHour: number
  /** Contacts left on donor sockets of this kind. */
  readonly donorContacts: number
  /** Price of a whole socket; null when none can be had or there is no ball-grid equipment. */
  readonly socketMinor: number | null
  /** Price of another board; null when none can be had. */
  readonly exchangeMinor: number | null
  /** Share of the beam that is left on a stub (bench default 0.55). */
  readonly stubShare?: number
}

export interface ReplacementWay {
  readonly way: Replacement
  /** Odds that the owner has a running board afterwards. */
  readonly odds: number
  readonly minutes: number
  readonly moneyMinor: number
  /** Worth of it: odds × the board's worth less time and money. */
  readonly worthMinor: number
  /** Odds that a good neighbour is harmed on the way. */
  readonly harms: number
  /** Force of a raised stub on its land, N, from – to; null for the others. */
  readonly forceN: readonly [number, number] | null
  readonly donorContacts: number
  readonly note: string
  /** Why it cannot be done; null when it can. */
  readonly not: string | null
}

/** Odds that one attempt holds, and that it harms a neighbour; minutes for one and for setting up (bench default). */
const attempt = {
  'stub raise': { holds: 0.8, harms: 0.02, minutes: 8, setUp: 3 },
  transplant: { holds: 0.72, harms: 0.12, minutes: 25, setUp: 20 },
  'whole socket': { holds: 0.82, harms: 0.08, minutes: 0, setUp: 190 },
  exchange: { holds: 0.96, harms: 0, minutes: 0, setUp: 40 },
} as const
/** A lost contact is a transplant more: one contact and setting up for it, minutes. */
export const TRANSPLANT_MINUTES = attempt.transplant.minutes + attempt.transplant.setUp

/** Spring travel that a raised stub has left when the CPU is in, mm (bench default: what a careful hand hits). */
const STUB_TRAVEL_MM: readonly [number, number] = [0.02, 0.12]

/**
 * Force of a stub raised to its land: a shorter cantilever is stiffer, k/f³, and yields sooner; beyond its yield the
 * force stays at that of the plastic hinge, 1.5 times that at yield.
 * @param share of the beam that is left, 0 … 1
 * @returns force at the least and at the most travel a hand leaves it, N, and the odds that it reaches the least reliable force
 * @throws RangeError for a share outside 0 … 1
 * Source: Euler–Bernoulli cantilever, as `contact-force.ts`
 */
export function stubForce(
  share: number,
  beam: Beam = benchBeam,
): { readonly fromN: number; readonly toN: number; readonly enough: number } {
  if (!(share > 0 && share <= 1))
    throw new RangeError(`the share of the beam must lie between 0 and 1, got ${share}`)
  const stub = { ...beam, lengthMm: beam.lengthMm * share }
  const k = stiffness(stub)
  const yieldMm = beam.yieldMPa / rootStress(stub, 1)
  const at = (mm: number) => k * Math.min(mm, 1.5 * yieldMm)
  const [low, high] = STUB_TRAVEL_MM
  const needMm = beam.leastForceN / k
  const enough = needMm > 1.5 * yieldMm ? 0 : Math.min(1, Math.max(0, (high - needMm) / (high - low)))
  return { fromN: at(low), toN: at(high), enough }
}

/** The ways to give a contact back, or not, compared; the one worth most first, those that cannot be done last. */
export function replacementWays(q: ReplacementQuestion, beam: Beam = benchBeam): ReplacementWay[] {
  const wanted = q.stubs + q.gone
  const force = stubForce(q.stubShare ?? 0.55, beam)
  const way = (
    name: Replacement,
    each: number,
    counted: number,
    moneyMinor: number,
    note: string,
    not: string | null,
  ): ReplacementWay => {
    const t = name === 'leave' ? { harms: 0, minutes: 0, setUp: 0 } : attempt[name]
    const minutes = counted * t.minutes + t.setUp
    const harms = 1 - (1 - t.harms) ** Math.max(1, counted)
    const all = each ** counted
    const odds =
      name === 'exchange'
        ? each
        : name === 'leave'
          ? q.runsNow
          : (q.runsNow + all * (q.runsMended - q.runsNow)) * (1 - harms * 0.5)
    const worthMinor = odds * q.boardMinor - (minutes / 60) * q.rateMinorPerHour - moneyMinor
    return {
      way: name,
      odds,
      minutes,
      moneyMinor,
      worthMinor,
      harms: name === 'leave' ? 0 : harms,
      forceN: name === 'stub raise' ? [force.fromN, force.toN] : null,
      donorContacts: name === 'transplant' ? counted : 0,
      note,
      not,
    }
  }
  return [
    way('leave', 1, 0, 0, 'recorded, and said on the hand-back sheet', null),
    way(
      'stub raise',
      attempt['stub raise'].holds * force.enough,
      q.stubs,
      0,
      `its force is a guess between ${force.fromN.toFixed(2)} and ${force.toN.toFixed(2)} N, and its edge may mark the CPU’s land`,
      q.gone > 0
        ? `${q.gone} ${q.gone === 1 ? 'has' : 'have'} no stub left`
        : q.stubs === 0
          ? 'no stub stands'
          : null,
    ),
    way(
      'transplant',
      attempt.transplant.holds,
      wanted,
      0,
      'heat near the housing: it melts, and good neighbours come out too; fume extraction, eye protection',
      q.donorContacts < wanted
        ? `the donors have ${q.donorContacts} contacts left, ${wanted} are wanted`
        : null,
    ),
    way(
      'whole socket',
      attempt['whole socket'].holds,
      1,
      q.socketMinor ?? 0,
      'every contact new; ball-grid equipment, and the board gets hot as a whole',
      q.socketMinor === null ? 'no socket, or no equipment for it' : null,
    ),
    way(
      'exchange',
      attempt.exchange.holds,
      1,
      q.exchangeMinor ?? 0,
      'another board; disks tied to this one’s security module are locked',
      q.exchangeMinor === null ? 'no board to be had' : null,
    ),
  ].sort((a, b) => Number(a.not !== null) - Number(b.not !== null) || b.worthMinor - a.worthMinor)
}
