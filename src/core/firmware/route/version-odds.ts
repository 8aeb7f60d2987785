import { routeOf } from './route'
import type { Route, RouteAsk } from './route'
import type { Weighting } from './search'
import { Support } from './support-table'
import type { SupportTable } from './support-table'

export const labelKinds = ['screen', 'sticker', 'file name'] as const
export type LabelKind = (typeof labelKinds)[number]

/** What says which release is in the chip, and how often such a word is wrong. Bench defaults. */
export const wrongLabel: Readonly<Record<LabelKind, number>> = {
  screen: 0.01,
  sticker: 0.15,
  'file name': 0.06,
}

export interface SeenStart {
  readonly cpu: string
  readonly saw: 'starts' | 'dark'
}

export interface VersionAsk {
  readonly table: SupportTable
  /** How common each release is before anything is seen; a release not named counts as `others`. */
  readonly prior: Readonly<Record<string, number>>
  readonly others: number
  readonly labels: readonly { readonly says: string; readonly on: LabelKind }[]
  readonly seen: readonly SeenStart[]
  /** CPUs that can be tried next. */
  readonly tries: readonly string[]
  /** Chance that the board stays dark whatever is fitted, because something else is wrong with it. */
  readonly otherFault: number
}

export interface VersionOdds {
  /** Releases by odds, likeliest first; they sum to 1. */
  readonly odds: readonly { readonly release: string; readonly odds: number }[]
  /** Odds that it stays dark whatever is fitted. */
  readonly otherFault: number
  /** What trying each CPU would tell, in bits about the release, and how likely it starts; most telling first. */
  readonly tries: readonly { readonly cpu: string; readonly bits: number; readonly starts: number }[]
}

/** A sound board starts with a CPU that its release starts; one that does not may still seem to. Bench defaults. */
const STARTS = 0.97
const UNSTABLE = 0.8
const NEVER = 0.005
/** A CPU that a table does not let start on a release, and that starts all the same. */
const UNLISTED = 0.03

/**
 * Odds over what is in a chip whose release cannot be seen, by Bayes over release and “something else keeps it dark”:
 *
 * P(v, f | seen) ∝ P(v) · P(f) · ∏ P(label | v) · ∏ P(seen with a CPU | v, f)
 *
 * A row of the table is right as often as its trust says. Starts with one CPU count once, and a start outweighs dark
 * screens: what keeps one board dark with one CPU is the same each time, so the tenth dark screen says what the first did.
 *
 * @throws RangeError if every release is ruled out by a prior of nought
 */
export function versionOdds(ask: VersionAsk): VersionOdds {
  const support = new Support(ask.table)
  const { releases } = ask.table
  const n = releases.length
  const weight = releases.map((r) => ask.prior[r.name] ?? ask.others)
  for (const { says, on } of ask.labels) {
    const wrong = n > 1 ? wrongLabel[on] : 0
    releases.forEach((r, v) => {
      weight[v]! *= r.name === says ? 1 - wrong : wrong / (n - 1)
    })
  }
  const sum = weight.reduce((a, b) => a + b, 0)
  if (!(sum > 0)) throw new RangeError('no release is possible: give at least one a prior above nought')
  // Row 0: a board that starts if it can; row 1: one that stays dark.
  let joint = [1 - ask.otherFault, ask.otherFault].map((f) => weight.map((w) => (f * w) / sum))
  for (const { cpu, saw } of eachOnce(ask.seen)) joint = seenWith(joint, cpu, saw)

  function seenWith(before: number[][], cpu: string, saw: SeenStart['saw']): number[][] {
    const after = before.map((row, fault) =>
      row.map((p, v) => {
        const starts = fault === 1 ? NEVER : startsWith(support, v, cpu)
        return p * (saw === 'starts' ? starts : 1 - starts)
      }),
    )
    const all = after.flat().reduce((a, b) => a + b, 0)
    return after.map((row) => row.map((p) => p / all))
  }
  const overReleases = (of: number[][]) => releases.map((_, v) => of[0]![v]! + of[1]![v]!)
  const now = overReleases(joint)
  const tried = new Set(ask.seen.map((s) => s.cpu))
  const tries = [...new Set(ask.tries)]
    .filter((cpu) => !tried.has(cpu))
    .map((cpu) => {
      const starts = joint
        .flatMap((row, fault) => row.map((p, v) => p * (fault === 1 ? NEVER : startsWith(support, v, cpu))))
        .reduce((a, b) => a + b, 0)
      const left =
        starts * bits(overReleases(seenWith(joint, cpu, 'starts'))) +
        (1 - starts) * bits(overReleases(seenWith(joint, cpu, 'dark')))
      return { cpu, bits: Math.max(0, bits(now) - left), starts }
    })
  return {
    odds: releases.map((r, v) => ({ release: r.name, odds: now[v]! })).sort((a, b) => b.odds - a.odds),
    otherFault: joint[1]!.reduce((a, b) => a + b, 0),
    tries: tries.sort((a, b) => b.bits - a.bits),
  }
}

/** Each CPU once: it starts if it ever did. */
function eachOnce(seen: readonly SeenStart[]): readonly SeenStart[] {
  const by = new Map<string, SeenStart['saw']>()
  for (const { cpu, saw } of seen) if (by.get(cpu) !== 'starts') by.set(cpu, saw)
  return [...by].map(([cpu, saw]) => ({ cpu, saw }))
}

/** Chance that a sound board starts with a CPU on a release, the table being as right as its rows say. */
function startsWith(support: Support, release: number, cpu: string): number {
  if (!support.knows(cpu)) return 0.5
  const row = support.rowOf(release, cpu)
  if (!row) return UNLISTED * STARTS + (1 - UNLISTED) * NEVER
  const good = support.cell(release, cpu) === 'unstable' ? UNSTABLE : STARTS
  return row.trust * good + (1 - row.trust) * NEVER
}

/** Shannon's entropy, bits. */
const bits = (odds: readonly number[]) => -odds.reduce((a, p) => a + (p > 0 ? p * Math.log2(p) : 0), 0)

export interface FirstStep {
  readonly say: string
  /** Odds of the releases from which this is the best first step. */
  readonly share: number
  /** The whole route from the likeliest of them. */
  readonly from: string
  readonly route: Route
}

/**
 * Where the release in the chip is not known: the route from each that is likely, by its first step. What is done is the
 * first step that is right for most; then one looks again.
 *
 * @param least odds below which a release is left out
 */
export function firstSteps(
  ask: RouteAsk,
  odds: VersionOdds['odds'],
  weighting: Weighting,
  least = 0.01,
): { readonly steps: readonly FirstStep[]; readonly none: number } {
  const by = new Map<string, { share: number; from: string; route: Route }>()
  let none = 0
  for (const { release, odds: p } of odds) {
    if (p < least) continue
    const found = routeOf({ ...ask, start: { ...ask.start, release } }, weighting)
    if (found.is === 'none') {
      none += p
      continue
    }
    const first = found.route.steps[0]
    const key = first ? JSON.stringify([first.do, first.cpu, first.way, first.release]) : 'there'
    const before = by.get(key)
    if (before) before.share += p
    else by.set(key, { share: p, from: release, route: found.route })
  }
  const steps = [...by.values()].map((s) => ({
    ...s,
    say:
      s.route.steps[0]?.say ??
      'Nothing to write: by the table it runs the CPU. If it stays dark, the fault is elsewhere.',
  }))
  return { steps: steps.sort((a, b) => b.share - a.share), none }
}
