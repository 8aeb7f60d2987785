import { benchBeam, rootStress, stiffness } from '../contact/contact-force'
import type { Beam } from '../contact/contact-force'
import { minutesMinor, usualFigures } from '../straighten/bench-figures'
import type { BenchFigures } from '../straighten/bench-figures'

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

/** Odds that one attempt of a way holds, and that it harms a neighbour; minutes for one and for setting up. */
const attempts = (f: BenchFigures) =>
  ({
    'stub raise': { holds: f.raiseHolds, harms: f.raiseHarms, minutes: f.raiseMinutes, setUp: f.raiseSetUp },
    transplant: {
      holds: f.transplantHolds,
      harms: f.transplantHarms,
      minutes: f.transplantMinutes,
      setUp: f.transplantSetUp,
    },
    'whole socket': { holds: f.socketHolds, harms: f.socketHarms, minutes: 0, setUp: f.socketMinutes },
    exchange: { holds: f.exchangeHolds, harms: 0, minutes: 0, setUp: f.exchangeMinutes },
  }) as const

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
export function replacementWays(
  q: ReplacementQuestion,
  figures: BenchFigures = usualFigures,
  beam: Beam = benchBeam,
): ReplacementWay[] {
  const attempt = attempts(figures)
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
    const worthMinor = odds * q.boardMinor - minutesMinor(minutes, figures) - moneyMinor
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

/** A contact that is gone: what the board gains by having it back, and whether that is worth what it takes. */
export interface GivenBack {
  readonly contact: string
  /** How it is best given back, on its own. */
  readonly way: 'stub raise' | 'transplant'
  /** Share of the board's worth that goes when it alone of those worth it is left. */
  readonly costsLeft: number
  readonly worthIt: boolean
}

/**
 * Which of the contacts that are gone are worth giving back. Begins with all of them and leaves, one after another, the
 * one whose leaving is worth most, while it is worth anything: so two contacts that are both needed are kept together,
 * which adding them one by one would miss.
 * Worth of a set S = board · (w₀ + ∏ holds · (w(S) − w₀)) · (1 − harms/2) − minutes, as in `replacementWays`.
 * @param gone names, and whether the beam stands as a stub
 * @param worthWith share of the board's worth with these given back and the others left as they are
 */
export function worthGivingBack(
  gone: readonly { readonly contact: string; readonly stub: boolean }[],
  worthWith: (back: readonly string[]) => number,
  boardMinor: number,
  figures: BenchFigures = usualFigures,
  beam: Beam = benchBeam,
): GivenBack[] {
  const attempt = attempts(figures)
  const enough = stubForce(0.55, beam).enough
  const raise = { ...attempt['stub raise'], holds: attempt['stub raise'].holds * enough }
  const value = ({ holds, harms, minutes }: typeof raise) =>
    holds * (1 - harms / 2) * boardMinor - minutesMinor(minutes, figures)
  const wayOf = (stub: boolean) =>
    stub && value(raise) >= value(attempt.transplant) ? ('stub raise' as const) : ('transplant' as const)
  const kept = new Map<string, number>()
  const withBack = (names: readonly string[]) => {
    const key = names.join(' ')
    const known = kept.get(key) ?? worthWith(names)
    kept.set(key, known)
    return known
  }
  const worth = (back: typeof gone): number => {
    const w0 = withBack([])
    let [all, unharmed, minutes] = [1, 1, 0]
    const ways = new Set(back.map((g) => wayOf(g.stub)))
    for (const way of ways) minutes += way === 'stub raise' ? raise.setUp : attempt.transplant.setUp
    for (const g of back) {
      const t = wayOf(g.stub) === 'stub raise' ? raise : attempt.transplant
      all *= t.holds
      unharmed *= 1 - t.harms
      minutes += t.minutes
    }
    const share = (w0 + all * (withBack(back.map((g) => g.contact)) - w0)) * (1 - (1 - unharmed) / 2)
    return share * boardMinor - minutesMinor(minutes, figures)
  }
  let back = [...gone]
  for (;;) {
    let [best, most] = [-1, worth(back)]
    back.forEach((_, i) => {
      const without = worth(back.filter((__, j) => j !== i))
      if (without > most) [best, most] = [i, without]
    })
    if (best < 0) break
    back = back.filter((_, i) => i !== best)
  }
  const names = back.map((g) => g.contact)
  return gone.map(({ contact, stub }) => {
    const worthIt = names.includes(contact)
    const [has, lacks] = worthIt
      ? [names, names.filter((n) => n !== contact)]
      : [gone.map((g) => g.contact).filter((n) => names.includes(n) || n === contact), names]
    return { contact, way: wayOf(stub), worthIt, costsLeft: Math.max(0, withBack(has) - withBack(lacks)) }
  })
}
