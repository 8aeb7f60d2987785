import betaQuantile from '@stdlib/stats-base-dists-beta-quantile'
import type { DamageKind } from '../damage/mark'
import { slipOdds, techniques } from './technique'
import type { SnapFactors, Technique } from './technique'

/** Lights one works under; others may be typed. */
export const lights = ['ring', 'low from one side', 'from both sides', 'diffused'] as const

/** How closely it was looked at: a loupe, a stereo microscope at its middle, and nearer. */
export const closenesses = ['under 10×', '10× to 20×', 'over 20×'] as const
export type Closeness = (typeof closenesses)[number]

/** “20×”, “x 20” or “20” as one of three; null where no number is given. */
export function closeness(magnification: string): Closeness | null {
  const times = Number(/\d+(?:[.,]\d+)?/.exec(magnification)?.[0].replace(',', '.') ?? NaN)
  if (!(times > 0)) return null
  return times < 10 ? 'under 10×' : times <= 20 ? '10× to 20×' : 'over 20×'
}

/** What the shop's tapes say of one technique on one kind of damage, under one light and magnification. */
export interface SnapTally {
  readonly technique: string
  readonly damage: DamageKind | null
  readonly light: string | null
  readonly magnification: string | null
  readonly tried: number
  readonly snapped: number
  /** Sum of the odds the model predicted for them, without what the record had learned by then. */
  readonly predicted: number
}

/** What was tried and what became of it, whatever it is counted by. */
type Counts = Pick<SnapTally, 'tried' | 'snapped' | 'predicted'>

export interface Learned extends Counts {
  /** Odds of losing one, the record weighed against what was predicted, with a 90 % interval. */
  readonly odds: number
  readonly low: number
  readonly high: number
  /** What predicted odds are multiplied by from now on. */
  readonly factor: number
}

/** What was learned of one technique on one kind of damage. */
export interface LearnedTechnique extends Learned {
  readonly technique: string
  readonly damage: DamageKind | null
}

/** What was learned of one light, or of how closely one looked. */
export interface LearnedEye extends Learned {
  readonly by: 'light' | 'magnification'
  readonly as: string
}

/** How one looks now. */
export interface Eye {
  readonly light?: string
  readonly magnification?: string
}

/** How many attempts the prediction is worth against the record (bench default). */
const PRIOR_ATTEMPTS = 40

/**
 * Beta-binomial: the predicted odds p₀ stand for 40 attempts, so Beta(40·p₀ + snapped, 40·(1 − p₀) + held).
 * Source: conjugate prior of the binomial, any text of Bayesian statistics.
 * @param usual odds where nothing was tried
 * @throws RangeError if more snapped than were tried
 */
export function learn({ tried, snapped, predicted }: Counts, usual = 0.02): Learned {
  if (!(snapped >= 0 && snapped <= tried)) throw new RangeError(`${snapped} of ${tried} cannot have snapped`)
  const prior = Math.min(0.95, Math.max(0.002, tried > 0 ? predicted / tried : usual))
  const a = PRIOR_ATTEMPTS * prior + snapped
  const b = PRIOR_ATTEMPTS * (1 - prior) + tried - snapped
  const odds = a / (a + b)
  return {
    tried,
    snapped,
    predicted,
    odds,
    low: betaQuantile(0.05, a, b),
    high: betaQuantile(0.95, a, b),
    factor: odds / prior,
  }
}

/** Tallies added up by what they have in common, in the order in which they come. */
function addedUp<K extends string>(
  tallies: readonly SnapTally[],
  keyOf: (t: SnapTally) => K | null,
  predictedOf = (t: SnapTally) => t.predicted,
): Map<K, Counts> {
  const sums = new Map<K, Counts>()
  for (const t of tallies) {
    const key = keyOf(t)
    if (key === null) continue
    const sum = sums.get(key) ?? { tried: 0, snapped: 0, predicted: 0 }
    sums.set(key, {
      tried: sum.tried + t.tried,
      snapped: sum.snapped + t.snapped,
      predicted: sum.predicted + predictedOf(t),
    })
  }
  return sums
}

const isTechnique = (name: string): name is Technique => (techniques as readonly string[]).includes(name)

/** What was learned by technique and damage. */
export function learnedTechniques(tallies: readonly SnapTally[]): LearnedTechnique[] {
  const sums = addedUp(tallies, (t) => `${t.technique}|${t.damage ?? ''}`)
  return [...sums].map(([key, sum]) => {
    const [technique = '', damage = ''] = key.split('|')
    const usual = isTechnique(technique) ? slipOdds[technique] : undefined
    return { technique, damage: (damage || null) as DamageKind | null, ...learn(sum, usual) }
  })
}

/**
 * Factors by technique, all kinds of damage taken together; and by technique and damage, where what the technique has
 * learned is the prediction, so that a kind of damage seen seldom goes with its technique.
 */
function techniqueFactors(tallies: readonly SnapTally[]): SnapFactors {
  const whole = addedUp(tallies, (t) => (isTechnique(t.technique) ? t.technique : null))
  const own = new Map([...whole].map(([technique, sum]) => [technique, learn(sum).factor]))
  const each = addedUp(tallies, (t) =>
    isTechnique(t.technique) && t.damage ? (`${t.technique} ${t.damage}` as const) : null,
  )
  const ofBoth = [...each].map(([key, sum]) => {
    const factor = own.get(key.slice(0, key.indexOf(' ')) as Technique)!
    const predicted = Math.min(sum.tried, sum.predicted * factor)
    return [key, factor * learn({ ...sum, predicted }).factor] as const
  })
  return Object.fromEntries([...own, ...ofBoth])
}

const eyeOf = {
  light: (light: string) => light.trim().toLowerCase() || null,
  magnification: closeness,
} as const

/** What a technique is taken to lose of what is predicted, for comparing lights: its own share, half a contact added to both. */
const HALF = 0.5

/**
 * What was learned by light and by closeness, beyond what the technique itself explains: what counts as predicted is
 * the technique's own share of losses on that kind of damage. The light is learned first; closeness is then held
 * against what technique and light explain, so that two that always go together are not counted twice. Beyond that
 * they are taken to act apart, which a small shop's record cannot tell from acting together.
 */
export function learnedEyes(tallies: readonly SnapTally[]): LearnedEye[] {
  const kindOf = (t: SnapTally) => `${t.technique} ${t.damage ?? ''}`
  const whole = addedUp(tallies, kindOf)
  const byTechnique = (t: SnapTally) => {
    const own = whole.get(kindOf(t))!
    return Math.min(t.tried, (t.predicted * (own.snapped + HALF)) / (own.predicted + HALF))
  }
  const learned = (by: LearnedEye['by'], expected: (t: SnapTally) => number): LearnedEye[] =>
    [...addedUp(tallies, (t) => eyeOf[by](t[by] ?? ''), expected)].map(([as, sum]) => ({
      by,
      as,
      ...learn(sum),
    }))
  const light = learned('light', byTechnique)
  const factorOf = new Map(light.map((l) => [l.as, l.factor]))
  return [
    ...light,
    ...learned('magnification', (t) =>
      Math.min(t.tried, byTechnique(t) * (factorOf.get(eyeOf.light(t.light ?? '') ?? '') ?? 1)),
    ),
  ]
}

/** Factors by technique and damage, under the light and magnification one looks with now. */
export function snapFactors(tallies: readonly SnapTally[], eye: Eye = {}): SnapFactors {
  const now = learnedEyes(tallies).filter((e) => eyeOf[e.by](eye[e.by] ?? '') === e.as)
  const byEye = now.reduce((all, e) => all * e.factor, 1)
  const factors = techniqueFactors(tallies)
  if (byEye === 1) return factors
  const all = { ...Object.fromEntries(techniques.map((t) => [t, 1])), ...factors }
  return Object.fromEntries(Object.entries(all).map(([key, factor]) => [key, factor * byEye]))
}

/** What the record says of a light or a magnification, if it plainly says something: beyond nine in ten. */
export function eyeSaid({ by, as, tried, snapped, predicted, low, high }: LearnedEye): string | null {
  const expected = predicted / tried
  if (low <= expected && high >= expected) return null
  const where = by === 'light' ? `under the light “${as}”` : `at ${as}`
  return `${where} ${low > expected ? 'more' : 'fewer'} are lost than elsewhere: ${snapped} of ${tried}, where ${predicted.toFixed(1)} were to be expected`
}
