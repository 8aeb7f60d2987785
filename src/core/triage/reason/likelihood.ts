import { normalise } from '../../maths/normalise'
import type { Change } from '../model/repair'
import { outcomesMeant } from '../model/bench-test'
import type { BenchTest } from '../model/bench-test'
import type { Setup } from '../model/setup'
import { stages } from '../model/stage'
import { startOutcomes, stopsIn } from '../model/start-model'
import { hypotheses, testOf, UNKNOWN, unknownStages, WIDTH } from './hypotheses'

/** One thing that was seen: a test, its outcome, and how many of the changes had been made by then. */
export interface Evidence {
  readonly test: string
  readonly outcome: string
  readonly after?: number
  /** Of what was read of a start: the start’s own test, where the board was not fitted as it came. */
  readonly of?: string
  /** What it came to before, with nothing done in between: starts of the same set-up, a meter’s readings of the same place. */
  readonly earlier?: readonly string[]
  /** A claim: chance that it was done and seen as it is told; left out for what was seen here. */
  readonly reliability?: number
}

/** Starts of one set-up that are counted beside the last: more of them say nothing more. */
const MOST_STARTS = 15

/** One place read off a meter: read again, each reading counts. A second look is a better look instead, and stands alone. */
const metered = (test: string) => /^(ohms|volts) (?!other)/.test(test)

/** Looks that can find several things at once: they stand beside each other; that it is clear replaces them, and they that. */
const looksRound: ReadonlySet<string> = new Set(['outside', 'round the chip', 'round the socket'])
const CLEAR = 'clear'

/**
 * What was seen, in order, as it counts: starts of one test, or readings of one meter, with nothing done in between are one
 * piece of evidence, each of them counted; of anything else that was done again the last stands.
 */
export function asItCounts<E extends Evidence>(seen: readonly E[]): readonly E[] {
  const by = new Map<string, E>()
  for (const one of seen) {
    const place = `${one.test} of ${one.of ?? ''} after ${one.after ?? 0}`
    const key = looksRound.has(one.test) ? `${place}: ${one.outcome}` : place
    if (looksRound.has(one.test))
      for (const [known, { outcome }] of by)
        if (known.startsWith(`${place}: `) && (one.outcome === CLEAR) !== (outcome === CLEAR))
          by.delete(known)
    const before = by.get(key)
    by.delete(key)
    const earlier =
      before && (metered(one.test) || testOf(one.test).outcomes === startOutcomes)
        ? [...(before.earlier ?? []), before.outcome, ...(one.earlier ?? [])].slice(-MOST_STARTS)
        : []
    by.set(key, earlier.length > 0 ? { ...one, earlier } : one)
  }
  return [...by.values()]
}

/** What was seen of the board as it stands, after all that was done to it. */
export const seenNow = (evidence: readonly Evidence[], changes: readonly unknown[]): readonly Evidence[] =>
  evidence.filter((e) => (e.after ?? 0) === changes.length)

/** The start that is the same board again, whatever was done to it in between. */
const AS_IT_CAME = 'as it came'

/**
 * Tests done on the board as it stands: what was done before a repair, or before work that can have made a fault, says
 * nothing of what is left. A start as it came is another one once anything was changed.
 */
export function doneNow(evidence: readonly Evidence[], changes: readonly Change[]): ReadonlySet<string> {
  const work = changes.findLastIndex((c) => c.is === 'mended' || c.is === 'made') + 1
  return new Set(
    evidence
      .filter(({ test, after = 0 }) => after >= (test === AS_IT_CAME ? changes.length : work))
      .map((e) => e.test),
  )
}

/** How far the log-odds of a figure may be from the truth, either way (bench default). */
const FIGURE_DOUBT = 0.3

/**
 * A chance as far as it is known: a figure's log-odds may be off by `FIGURE_DOUBT` of itself either way, so what is
 * reckoned with is the mean over that range (five points), which is never as sure as the figure says.
 */
function asKnown(odds: Float64Array): Float64Array {
  return normalise(
    odds.map((p) => {
      const safe = Math.min(1 - 1e-9, Math.max(1e-9, p))
      const logit = Math.log(safe / (1 - safe))
      let mean = 0
      for (let k = -2; k <= 2; k++) mean += 1 / (1 + Math.exp(-logit * (1 + (FIGURE_DOUBT * k) / 2.5))) / 5
      return mean
    }),
  )
}

const STAGES = stages.length
const settled = new Map<string, Float64Array>()
const setupKey = (setup: Setup) => Object.values(setup).join()

/** Chance that a start of this set-up stops in each stage, hypothesis by hypothesis. Worked out once. */
export function stopsOf(setup: Setup): Float64Array {
  const key = setupKey(setup)
  const known = settled.get(key)
  if (known) return known
  const all = new Float64Array(WIDTH * STAGES)
  for (let h = 0; h < WIDTH; h++)
    all.set(asKnown(stopsIn(hypotheses[h] ?? [], setup, unknownStages[h - UNKNOWN])), h * STAGES)
  settled.set(key, all)
  return all
}

/** Sum over the stages of what stops there, times what it is worth. */
function dot(stops: Float64Array, h: number, worth: Float64Array): number {
  let sum = 0
  for (let s = 0; s < STAGES; s++) sum += stops[h * STAGES + s]! * worth[s]!
  return sum
}

const kept = new Map<string, readonly Float64Array[]>()

/**
 * Chance of each outcome of a test under each hypothesis: one row an outcome. Worked out once.
 * @param setup in which it is read of a start; the test’s own unless told
 */
export function likelihood(test: BenchTest, setup = test.setup): readonly Float64Array[] {
  const key = `${test.id} of ${test.outcomes.length} ${setupKey(setup)}`
  const known = kept.get(key)
  if (known) return known
  const rows = test.byStage ? rowsByStage(test.byStage, stopsOf(setup)) : rowsAlone(test)
  kept.set(key, rows)
  return rows
}
const rowsByStage = (byStage: readonly Float64Array[], stops: Float64Array) =>
  byStage.map((worth) => Float64Array.from({ length: WIDTH }, (_, h) => dot(stops, h, worth)))
function rowsAlone(test: BenchTest): readonly Float64Array[] {
  const rows = test.outcomes.map(() => new Float64Array(WIDTH))
  for (let h = 0; h < WIDTH; h++) {
    const odds = asKnown(test.odds(hypotheses[h] ?? [], unknownStages[h - UNKNOWN]))
    rows.forEach((row, o) => (row[h] = odds[o]!))
  }
  return rows
}

/** The set-up in which something was read. */
const setupOf = (seen: Evidence): Setup => testOf(seen.of ?? seen.test).setup

const lamps: ReadonlySet<string> = new Set(
  startOutcomes.filter((o) => o.endsWith(' lamp') && !o.includes('no lamp')),
)
/** How often a reading made here is noted as another than it was (bench default). */
const NOTED_AS_ANOTHER = 0.05
/**
 * The share m of readings that say nothing: (1 − m)·P + m/n notes one of n outcomes as another with m·(n − 1)/n, which is to
 * be the same however many there are.
 */
const says = (test: BenchTest): number => {
  const n = test.outcomes.length
  return 1 - (NOTED_AS_ANOTHER * n) / (n - 1)
}

/** Rows of outcomes as a board shows them whose lamps lie: any lamp may stand for any stage, so each is the mean of them. */
function whereLampsLie(test: BenchTest, rows: readonly Float64Array[]): readonly Float64Array[] {
  if (test.outcomes !== startOutcomes) return rows
  const lit = rows.filter((_, o) => lamps.has(test.outcomes[o]!))
  const mean = rows[0]!.map((_, i) => lit.reduce((sum, row) => sum + row[i]!, 0) / lit.length)
  return rows.map((row, o) => (lamps.has(test.outcomes[o]!) ? mean : row))
}

/** Each time something was read: the outcomes it may have been, the first of them the last that was read. */
function readingsOf({ test: id, outcome, earlier = [] }: Evidence): readonly (readonly number[])[] {
  const test = testOf(id)
  return [outcome, ...earlier].map((noted) => {
    const meant = outcomesMeant(test, noted)
    if (meant.length === 0) throw new RangeError(`“${noted}” is no outcome of “${id}”`)
    return meant.map((o) => test.outcomes.indexOf(o))
  })
}

/** What was seen that hangs together: what was read of starts of one set-up with nothing done in between. */
export function hangsTogether(evidence: readonly Evidence[]): readonly (readonly Evidence[])[] {
  const by = new Map<string, Evidence[]>()
  evidence.forEach((seen, i) => {
    const test = testOf(seen.test)
    const key =
      test.byStage && seen.reliability === undefined
        ? `${setupKey(setupOf(seen))} after ${seen.after ?? 0}`
        : `by itself ${i}`
    by.set(key, [...(by.get(key) ?? []), seen])
  })
  return [...by.values()]
}

/** Chance by hypothesis, where the lamps tell the truth and where they lie. */
export type Chance = readonly [true: Float64Array, lying: Float64Array]

/**
 * What is reckoned with of several readings: their chance drawn anew; and drawn once for all, by stage where it is read of a
 * start, by hypothesis where it is not.
 */
function worked(together: readonly Evidence[], lampsLie: boolean) {
  const anew = new Float64Array(WIDTH).fill(1)
  const once = new Float64Array(STAGES).fill(1)
  const readOnce = new Float64Array(WIDTH)
  for (const seen of together) {
    const test = testOf(seen.test)
    const r = (seen.reliability ?? 1) * says(test)
    const blur = (1 - r) / test.outcomes.length
    const shown = (rows: readonly Float64Array[]) => (lampsLie ? whereLampsLie(test, rows) : rows)
    const readings = readingsOf(seen)
    const rows = shown(likelihood(test, setupOf(seen)))
    for (const of of readings)
      for (let h = 0; h < WIDTH; h++) {
        let p = of.length * blur
        for (const o of of) p += r * rows[o]![h]!
        anew[h]! *= p
      }
    const noted = test.outcomes.map((_, o) =>
      readings.reduce((product, of) => product * ((of.includes(o) ? r : 0) + of.length * blur), 1),
    )
    if (!test.byStage) {
      rows.forEach((row, o) => row.forEach((p, h) => (readOnce[h]! += p * noted[o]!)))
      continue
    }
    const table = shown(test.byStage)
    for (let s = 0; s < STAGES; s++) {
      let sum = 0
      for (let o = 0; o < table.length; o++) sum += table[o]![s]! * noted[o]!
      once[s]! *= sum
    }
  }
  return { anew, once, readOnce }
}

/**
 * Chance of what was seen together, by hypothesis of the board as it stood: of one reading r·P(outcome | h) +
 * (1 − r)/outcomes; of what leaves open which of several it was, the sum over them.
 *
 * Starts of one set-up are as alike as this board makes them, and nobody knows how much that is. Either each is drawn anew,
 * Πₖ (r·P(oₖ | h) + (1 − r)/n); or how far they get is drawn once, and what each test shows of it,
 * Σₛ P(stops in s | h)·Π_tests Σₒ P(o | s)·Πₖ (r·[oₖ = o] + (1 − r)/n). Both are as likely. So the tenth dark start
 * says little that the second did not, and one that came up among dark ones says that it comes and goes. Readings of one
 * meter alike: what they have in common is what there is to read, Σₒ P(o | h)·Πₖ (r·[oₖ = o] + (1 − r)/n).
 */
export function chanceOf(together: readonly Evidence[]): Chance {
  const lit = together.some((e) => [e.outcome, ...(e.earlier ?? [])].some((o) => lamps.has(o)))
  const [first] = together
  const alone = together.length === 1 && (first!.earlier?.length ?? 0) === 0
  const one = (lampsLie: boolean) => {
    const { anew, once, readOnce } = worked(together, lampsLie)
    if (alone || together.length === 0) return anew
    if (!testOf(first!.test).byStage) return anew.map((p, h) => (p + readOnce[h]!) / 2)
    const stops = stopsOf(setupOf(first!))
    return anew.map((p, h) => (p + dot(stops, h, once)) / 2)
  }
  const plain = one(false)
  return [plain, lit ? one(true) : plain]
}

/** Chance of each outcome of a test, told what was read already of the same set-up as the board stands. */
export function likelihoodAfter(test: BenchTest, seen: readonly Evidence[]): readonly Float64Array[] {
  const { byStage } = test
  const rows = likelihood(test)
  const before = seen.find((e) => e.test === test.id && e.reliability === undefined)
  if (before && metered(test.id)) {
    const told = chanceOf([before])[0]
    return test.outcomes.map((outcome) =>
      chanceOf(asItCounts([before, { ...before, outcome, earlier: [] }]))[0].map((p, h) => p / told[h]!),
    )
  }
  const same = seen.filter(
    (e) =>
      testOf(e.test).byStage && e.reliability === undefined && setupKey(setupOf(e)) === setupKey(test.setup),
  )
  if (!byStage || same.length === 0) return rows
  const { anew, once } = worked(same, false)
  const stops = stopsOf(test.setup)
  const told = chanceOf(same)[0]
  return rows.map((row, o) => {
    const worth = once.map((p, s) => p * byStage[o]![s]!)
    return row.map((p, h) => (anew[h]! * p + dot(stops, h, worth)) / 2 / told[h]!)
  })
}

/** How often a reading of a meter is taken at most, as long as the readings agree. */
const ENOUGH = 2

/** Readings of a meter that may be taken once more: those taken once, and those that differ. */
export const readAgain = (seen: readonly Evidence[]): readonly Evidence[] =>
  seen.filter(
    ({ test, outcome, earlier = [], reliability }) =>
      metered(test) &&
      reliability === undefined &&
      (earlier.length + 1 < ENOUGH || (earlier.length < ENOUGH && earlier.some((o) => o !== outcome))),
  )

/** Chance that a reading was noted as another than it was, by hypothesis. */
export function misread({ test: id, outcome }: Evidence): Float64Array {
  const test = testOf(id)
  const meant = outcomesMeant(test, outcome).map((o) => test.outcomes.indexOf(o))
  const r = says(test)
  const blur = ((1 - r) * meant.length) / test.outcomes.length
  const rows = likelihood(test)
  return rows[0]!.map((_, h) => blur / (r * meant.reduce((sum, o) => sum + rows[o]![h]!, 0) + blur))
}
