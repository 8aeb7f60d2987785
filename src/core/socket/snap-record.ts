import { betaQuantile } from '../beta'
import type { DamageKind } from './mark'
import { slipOdds, techniques } from './technique'
import type { Technique } from './technique'

/** What the shop's tapes say of one technique on one kind of damage. */
export interface SnapTally {
  readonly technique: string
  readonly damage: DamageKind | null
  readonly tried: number
  readonly snapped: number
  /** Sum of the odds that were predicted for them. */
  readonly predicted: number
}

export interface Learned extends SnapTally {
  /** Odds of losing one, the record weighed against what was predicted, with a 90 % interval. */
  readonly odds: number
  readonly low: number
  readonly high: number
  /** What predicted odds are multiplied by from now on. */
  readonly factor: number
}

/** The record of all techniques as factors on the predicted odds; 1 where there is none. */
export type SnapFactors = Readonly<Partial<Record<Technique, number>>>

/** How many attempts the prediction is worth against the record (bench default). */
const PRIOR_ATTEMPTS = 40

/**
 * Beta-binomial: the predicted odds p₀ stand for 40 attempts, so Beta(40·p₀ + snapped, 40·(1 − p₀) + held).
 * Source: conjugate prior of the binomial, any text of Bayesian statistics.
 * @throws RangeError if more snapped than were tried
 */
export function learn(tally: SnapTally): Learned {
  const { tried, snapped, predicted, technique } = tally
  if (!(snapped >= 0 && snapped <= tried)) throw new RangeError(`${snapped} of ${tried} cannot have snapped`)
  const known = (techniques as readonly string[]).includes(technique)
  const prior = Math.min(
    0.95,
    Math.max(0.002, tried > 0 ? predicted / tried : known ? slipOdds[technique as Technique] : 0.02),
  )
  const a = PRIOR_ATTEMPTS * prior + snapped
  const b = PRIOR_ATTEMPTS * (1 - prior) + tried - snapped
  const odds = a / (a + b)
  return {
    ...tally,
    odds,
    low: betaQuantile(0.05, a, b),
    high: betaQuantile(0.95, a, b),
    factor: odds / prior,
  }
}

/** Factors by technique, all kinds of damage taken together. */
export function snapFactors(tallies: readonly SnapTally[]): SnapFactors {
  const factors: Partial<Record<Technique, number>> = {}
  for (const technique of techniques) {
    const own = tallies.filter((t) => t.technique === technique)
    const sum = (of: (t: SnapTally) => number) => own.reduce((all, t) => all + of(t), 0)
    if (own.length > 0)
      factors[technique] = learn({
        technique,
        damage: null,
        tried: sum((t) => t.tried),
        snapped: sum((t) => t.snapped),
        predicted: sum((t) => t.predicted),
      }).factor
  }
  return factors
}
