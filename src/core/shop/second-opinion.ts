import { faults } from '../triage/model/faults'
import type { FaultId } from '../triage/model/faults'
import type { Belief, Way } from '../triage/reason/belief'
import type { Fault, Sign } from '../triage/model/fault'
import { decide, MINUTES_A_BIT } from './decide'
import type { ToDecide } from './decide'

/** Where a photo can show what is wrong, and the tests of the list that look there. */
const onPhotos = {
  outside: ['outside'],
  socket: ['socket', 'swept'],
  slots: ['slots', 'slots probed'],
  'round the chip': ['round the chip'],
  'round the socket': ['round the socket'],
} as const satisfies Partial<Record<Sign, readonly string[]>>
/** How much of what a look at the bench finds is found on photos by somebody else, where nobody looked yet, and where it was looked at here and missed (bench defaults). */
const BY_PHOTO = 0.6
const MISSED_HERE = 0.3
/** Chance that something is named that is not there (bench default). */
const NAMED_WRONGLY = 0.1
/** Minutes to choose the photos and to ask, and days until somebody answers (bench defaults). */
const ASKING_MINUTES = 5
const DAYS = 1

export interface SecondOpinion {
  /** Chance that it names what is there. */
  readonly names: number
  /** What it takes of the doubt, bits. */
  readonly tells: number
  readonly minutes: number
  readonly days: number
}

/** Chance that a fault which is there is named by whoever sees photos of the board. */
function isNamed(fault: FaultId, made: ReadonlySet<string>): number {
  const signs: Fault['signs'] = faults[fault].signs
  const places = Object.entries(onPhotos).map(
    ([place, tests]) =>
      (signs[place as Sign] ?? 0) * BY_PHOTO * (tests.some((t) => made.has(t)) ? MISSED_HERE : 1),
  )
  return Math.max(...places)
}

/**
 * What a second opinion would tell: it names one fault that shows on photos, or nothing. A cause has the first of its faults
 * named with the chance that it shows there, else the next; of what is not named rightly a tenth is named wrongly, evenly. What it
 * takes of the doubt is the mutual information of cause and answer, Σ p(c)·P(a|c)·log₂(P(a|c)/P(a)), bits.
 * @param causes ways that exclude each other; what their odds lack to one has nothing to show
 * @param made tests of the list that were made here
 */
export function secondOpinion(
  causes: readonly { readonly faults: readonly FaultId[]; readonly odds: number }[],
  made: readonly string[],
): SecondOpinion {
  const madeHere = new Set(made)
  const visible = [...new Set(causes.flatMap((c) => c.faults))].filter((f) => isNamed(f, madeHere) > 0)
  const answers = [...visible, null]
  const lacks = Math.max(0, 1 - causes.reduce((sum, c) => sum + c.odds, 0))
  let names = 0
  const rows = [...causes, { faults: [], odds: lacks }].map(({ faults: there, odds }) => {
    let unnamed = 1
    const named = new Map<FaultId, number>()
    for (const fault of there) {
      const p = unnamed * (visible.includes(fault) ? isNamed(fault, madeHere) : 0)
      named.set(fault, p)
      unnamed -= p
    }
    names += odds * (1 - unnamed)
    const wrongly = visible.length > 0 ? (unnamed * NAMED_WRONGLY) / visible.length : 0
    const said = answers.map((a) =>
      a === null ? unnamed - wrongly * visible.length : (named.get(a) ?? 0) + wrongly,
    )
    return { odds, said }
  })
  const tells = answers.reduce((sum, _, a) => {
    const all = rows.reduce((p, row) => p + row.odds * row.said[a]!, 0)
    return (
      sum +
      rows.reduce((bits, { odds, said }) => {
        const p = odds * said[a]!
        return p > 0 ? bits + p * Math.log2(said[a]! / all) : bits
      }, 0)
    )
  }, 0)
  return { names, tells: Math.max(0, tells), minutes: ASKING_MINUTES, days: DAYS }
}

/** What a second opinion would change for a job. */
export interface OpinionWorth extends SecondOpinion {
  /** Minutes of looking still to come, with it and without. */
  readonly lookingMinutes: number
  readonly lookingWithout: number
  /** What going on with it is worth to the owner, less going on without it. */
  readonly worthMinor: number
}

/**
 * A second opinion weighed as one more instrument is: what it tells need not be looked for, at six minutes a bit. Nobody
 * waits for one that takes longer to ask than it saves.
 * @param factor how long going on takes against the usual minutes, by the record
 */
export function opinionFor(
  of: ToDecide,
  { causes, made }: { readonly causes: readonly Way[] } & Pick<Belief, 'made'>,
  factor = 1,
): OpinionWorth {
  const opinion = secondOpinion(causes, made)
  const saved = factor * (MINUTES_A_BIT * opinion.tells - opinion.minutes)
  const lookingMinutes = Math.max(0, of.lookingMinutes - Math.max(0, saved))
  const best = (lookingIs: number) =>
    Math.max(...decide({ ...of, others: [], lookingMinutes: lookingIs }).options.map((o) => o.worthMinor))
  return {
    ...opinion,
    lookingMinutes,
    lookingWithout: of.lookingMinutes,
    worthMinor: best(lookingMinutes) - best(of.lookingMinutes),
  }
}
