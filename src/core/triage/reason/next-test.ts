import type { ShelfItem } from '../../board/shelf-items'
import { benchTests } from '../model/bench-tests'
import type { BenchTest } from '../model/bench-test'
import { repairOf } from '../model/repair'
import { faultIds } from '../model/faults'
import type { FaultId } from '../model/faults'
import { faultOdds, unknownOdds } from './odds'
import { leading, members, testOf, UNKNOWN, WIDTH } from './hypotheses'
import { likelihoodAfter, misread, readAgain } from './likelihood'
import type { Evidence } from './likelihood'

/** Chance above which a fault counts as found (bench default). */
export const SETTLED = 0.95
/** Chance above which nothing is taken to be left; a fault that goes out of the door costs more than one more test. */
export const NOTHING_LEFT = 0.985
/** Chance that a fault harms a part that is lent to the board (bench default). */
const harm: Readonly<Partial<Record<FaultId, number>>> = {
  'sense contact open': 0.4,
  'core controller': 0.1,
  'core rail short': 0.15,
  'power contacts shorted': 0.3,
  'memory controller': 0.05,
  'signal contacts touch': 0.04,
}
/** What a lent part is worth, in minutes of bench time (bench default). */
export const worthMinutes = { CPU: 400, module: 80, card: 150 } as const

/** What the odds come to: the fault to mend, that nothing is wrong any more, or that it is nothing known. */
export type Verdict =
  | { readonly is: 'found'; readonly fault: FaultId; readonly odds: number }
  | { readonly is: 'nothing left' | 'nothing known'; readonly odds: number }

/** The verdict, once one is sure enough. */
export function verdict(odds: Float64Array): Verdict | null {
  const unknown = unknownOdds(odds)
  if (unknown >= 0.5) return { is: 'nothing known', odds: unknown }
  if (odds[0]! >= NOTHING_LEFT) return { is: 'nothing left', odds: odds[0]! }
  const each = faultOdds(odds)
  const top = each.indexOf(Math.max(...each))
  return each[top]! >= SETTLED ? { is: 'found', fault: faultIds[top]!, odds: each[top]! } : null
}

export interface Suggestion {
  readonly test: BenchTest
  /** It was done already, and is to be done once more. */
  readonly again: boolean
  /** Chance of each outcome. */
  readonly outcomes: readonly {
    readonly outcome: string
    readonly odds: number
    readonly points: FaultId | null
  }[]
  /** How much of the doubt it takes away, bits. */
  readonly tells: number
  /** Chance that it leaves no doubt about what to mend first. */
  readonly settles: number
  /** Risk to a lent part, as minutes. */
  readonly riskMinutes: number
  /** Doubt taken away per minute, with the test after it. */
  readonly worth: number
}

/** Least a test must tell to be worth doing, bits (bench default). */
export const WORTH_BITS = 0.01
/** Least odds of a fault to repair it and see (bench default). */
export const WORTH_TRYING = 0.6

/** Least odds of a fault to repair it and see, rather than look further (bench default). */
export const RATHER_REPAIR = 0.85
/**
 * Most odds of something in no list to repair and see rather than look further, and where no test tells any more (bench
 * defaults): a board that nobody has understood is not repaired to see.
 */
const MOST_UNKNOWN = 0.02
const MOST_UNKNOWN_TO_TRY = 0.1

/** Whether a fault is worth repairing to see, where no test tells any more. */
export const worthTrying = (odds: number, unknown: number): boolean =>
  odds >= WORTH_TRYING && unknown <= MOST_UNKNOWN_TO_TRY

export interface Choosing {
  readonly shelf?: ReadonlySet<ShelfItem>
  /** Tests done already, as this board stands. */
  readonly done: ReadonlySet<string>
  /** What was seen as it stands now: a start tells less of what starts of its set-up have shown. */
  readonly seen?: readonly Evidence[]
  readonly mayPower?: boolean
  /** The tests as this board answers them; all there are when left out. */
  readonly tests?: readonly BenchTest[]
  /** How many of the best are looked at two steps deep. */
  readonly deep?: number
}

interface Weighed {
  readonly gain: number
  readonly worth: number
}
const tellsEnough = ({ gain }: Weighed): number => Number(gain >= WORTH_BITS * Math.LN2)
/** By worth; what tells next to nothing is no first step, however short it is and however much the test after it would tell. */
const byWorth = (a: Weighed, b: Weighed): number => tellsEnough(b) - tellsEnough(a) || b.worth - a.worth

/**
 * Tests as good as the best to this share come by what they tell themselves (bench default): what the test after one would
 * tell is not in hand yet, and the reckoning is no finer.
 */
export const NEAR = 0.95

/** Which fault a hypothesis asks to mend first; the one after the last for none, then something else, stage by stage. */
const group = Int16Array.from(leading, (lead, h) =>
  h >= UNKNOWN ? faultIds.length + 1 + h - UNKNOWN : lead < 0 ? faultIds.length : lead,
)

/** Hypotheses below this chance are left out of the reckoning; together they are less than a hundredth. */
const NEGLIGIBLE = 8e-6

/** The hypotheses worth reckoning with, packed. */
class Field {
  readonly odds: Float64Array
  readonly mass: number
  private readonly index: Int32Array
  /** By packed hypothesis: its group, and its faults by number, one past the last where there is none. */
  private readonly group: Int16Array
  private readonly one: Int16Array
  private readonly other: Int16Array
  private readonly by = new Float64Array(faultIds.length + 1 + WIDTH - UNKNOWN)
  private readonly each = new Float64Array(faultIds.length + 1)
  private readonly rows = new Map<BenchTest, readonly Float64Array[]>()

  constructor(
    odds: Float64Array,
    private readonly seen: readonly Evidence[],
  ) {
    this.index = Int32Array.from(odds.keys()).filter((h) => odds[h]! > NEGLIGIBLE)
    this.odds = Float64Array.from(this.index, (h) => odds[h]!)
    this.group = Int16Array.from(this.index, (h) => group[h]!)
    this.one = Int16Array.from(this.index, (h) => members[h]?.[0] ?? faultIds.length)
    this.other = Int16Array.from(this.index, (h) => members[h]?.[1] ?? faultIds.length)
    this.mass = this.odds.reduce((a, b) => a + b, 0)
  }

  /** Chance of each outcome of a test, by packed hypothesis. */
  likelihood(test: BenchTest): readonly Float64Array[] {
    let rows = this.rows.get(test)
    if (!rows) {
      rows = likelihoodAfter(test, this.seen).map((row) => Float64Array.from(this.index, (h) => row[h]!))
      this.rows.set(test, rows)
    }
    return rows
  }

  /**
   * The doubt about which fault to mend first: entropy over the fault a start meets first, nats; none once settled.
   * @param weights by packed hypothesis, not normalised
   * @param row what they are multiplied by first
   */
  doubt(
    weights: Float64Array,
    row?: Float64Array,
  ): { readonly doubt: number; readonly points: number; readonly total: number } {
    const { by, each, one, other, group } = this
    by.fill(0)
    each.fill(0)
    let total = 0
    for (let k = 0; k < weights.length; k++) {
      const w = row === undefined ? weights[k]! : weights[k]! * row[k]!
      total += w
      by[group[k]!]! += w
      each[one[k]!]! += w
      each[other[k]!]! += w
    }
    let points = -1
    let top = 0
    for (let i = 0; i < faultIds.length; i++)
      if (each[i]! > top) {
        top = each[i]!
        points = i
      }
    const whole = total / this.mass
    if (top >= SETTLED * whole || by[faultIds.length]! >= NOTHING_LEFT * whole)
      return { doubt: 0, points, total }
    let doubt = 0
    for (const w of by) if (w > 0) doubt -= (w / total) * Math.log(w / total)
    return { doubt, points, total }
  }
}

/** Whether a test can be done as things are: the gate open where it powers, what it needs on the shelf. */
const canDo = (test: BenchTest, { shelf, mayPower = true }: Pick<Choosing, 'shelf' | 'mayPower'>): boolean =>
  (mayPower || !test.powers) && (!shelf || test.needs.every((item) => shelf.has(item)))

/**
 * Which test next: the doubt it takes away per minute, the risk to lent parts counted as minutes, and for the best few
 * with the best test that could follow each outcome. Doubt is the entropy of which fault to mend first; it is gone once
 * a fault is settled, so that a test which settles is worth more than one that only shifts.
 * @param odds over all hypotheses as the board stands, as `standing` gives them
 * @returns best first; empty when nothing that may be done tells anything
 */
export function nextTests(odds: Float64Array, choosing: Choosing): Suggestion[] {
  const { done, tests = benchTests, deep = 5, seen = [] } = choosing
  const field = new Field(odds, seen)
  const doubtful = readAgain(seen).filter(
    (e) => (e.earlier?.length ?? 0) > 0 || chance(odds, misread(e)) >= DOUBTFUL,
  )
  const again = new Set(doubtful.map((e) => e.test))
  const allowed = tests.filter((t) => (!done.has(t.id) || again.has(t.id)) && canDo(t, choosing))
  const risk = riskOf(odds)
  const { mass } = field
  const now = field.doubt(field.odds).doubt

  /** What is left of the doubt on average after a test. */
  const left = (
    test: BenchTest,
    from: Float64Array,
    total: number,
    each?: (o: number, share: number, points: number, doubt: number) => void,
  ) => {
    const rows = field.likelihood(test)
    let rest = 0
    for (let o = 0; o < rows.length; o++) {
      const { doubt, points, total: sum } = field.doubt(from, rows[o])
      if (sum < 1e-12 * total) continue
      rest += (sum / total) * doubt
      each?.(o, sum / total, points, doubt)
    }
    return rest
  }

  const first = allowed
    .map((test) => {
      const outcomes: Suggestion['outcomes'][number][] = []
      let settles = 0
      const gain =
        now -
        left(test, field.odds, mass, (o, share, points, doubt) => {
          outcomes.push({ outcome: test.outcomes[o]!, odds: share, points: faultIds[points] ?? null })
          if (doubt === 0) settles += share
        })
      const riskMinutes = test.lends ? risk * worthMinutes[test.lends] : 0
      const minutes = test.minutes + riskMinutes
      return { test, outcomes, gain, settles, riskMinutes, minutes, worth: gain / minutes }
    })
    .filter((s) => s.gain > 1e-6)
    .sort((a, b) => byWorth(a, b) || (a.test.id < b.test.id ? -1 : 1))

  const held = new Float64Array(field.odds.length)
  const looked = first.slice(0, deep).map((s) => {
    let gain = s.gain
    let minutes = s.minutes
    for (const row of field.likelihood(s.test)) {
      const sum = times(field.odds, row, held)
      const here = sum < 0.005 ? 0 : field.doubt(held).doubt
      if (here === 0) continue
      let best = { worth: 0, gain: 0, minutes: 0 }
      for (const { test, minutes: cost } of first.slice(0, 12)) {
        if (test === s.test) continue
        const more = here - left(test, held, sum)
        if (more / cost > best.worth) best = { worth: more / cost, gain: more, minutes: cost }
      }
      gain += sum * best.gain
      minutes += sum * best.minutes
    }
    return { ...s, worth: gain / minutes }
  })
  looked.sort(byWorth)
  const near = looked
    .filter((s) => tellsEnough(s) === tellsEnough(looked[0]!) && s.worth >= NEAR * looked[0]!.worth)
    .sort((a, b) => b.gain - a.gain)
  return [...near, ...looked.filter((s) => !near.includes(s)), ...first.slice(deep)].map(
    ({ test, outcomes, gain, settles, riskMinutes, worth }) => ({
      test,
      again: done.has(test.id),
      outcomes,
      tells: gain / Math.LN2,
      settles,
      riskMinutes,
      worth,
    }),
  )
}

/** Chance that a reading was noted as another from which on it may be worth taking again (bench default). */
const DOUBTFUL = 0.05

const chance = (odds: Float64Array, of: Float64Array): number =>
  odds.reduce((sum, p, h) => sum + p * of[h]!, 0)

/**
 * The reading to take once more before a fault is repaired: the one on which it rests, where most of the doubt that is left
 * is that it was misread. Null where there is none, or where it has been taken twice.
 */
export function toConfirm(
  odds: Float64Array,
  fault: FaultId,
  choosing: Pick<Choosing, 'seen' | 'mayPower' | 'shelf' | 'tests'>,
): string | null {
  const { seen = [], tests = benchTests } = choosing
  const i = faultIds.indexOf(fault)
  const otherwise = odds.map((p, h) => (members[h]?.includes(i) ? 0 : p))
  const doubt = otherwise.reduce((a, b) => a + b, 0)
  return (
    readAgain(seen)
      .filter((e) => chance(otherwise, misread(e)) >= doubt / 2)
      .map((e) => tests.find((t) => t.id === e.test))
      .find((t) => t !== undefined && canDo(t, choosing))?.id ?? null
  )
}

/** A repair that is found needless has cost its minutes, and as much again in risk to a sound board (bench default). */
const NEEDLESS = 2

/** The likeliest fault put right, and a start after it: a move like a test. */
export interface RepairMove {
  readonly fault: FaultId
  readonly odds: number
  /** What it takes, minutes, the start after it among them. */
  readonly minutes: number
}

/**
 * The repair that comes before any more tests: it has to be made in any case where the fault is there, so it costs
 * (1 − p) × what it is to have made it for nothing; it comes first where that is less than the best test takes.
 * @param tests what could be tested instead, best first
 */
export function repairMove(odds: Float64Array, tests: readonly Suggestion[]): RepairMove | null {
  const each = faultOdds(odds)
  const top = each.indexOf(Math.max(...each))
  const p = each[top]!
  const fault = faultIds[top]!
  const { minutes } = repairOf(fault)
  const test = tests[0]
  if (
    p < RATHER_REPAIR ||
    unknownOdds(odds) > MOST_UNKNOWN ||
    !test ||
    (1 - p) * NEEDLESS * minutes >= test.test.minutes + test.riskMinutes
  )
    return null
  return { fault, odds: p, minutes: minutes + testOf('as it came').minutes }
}

/** Product by place into `to`, and its sum. */
function times(a: Float64Array, b: Float64Array, to: Float64Array): number {
  let sum = 0
  for (let k = 0; k < a.length; k++) sum += to[k] = a[k]! * b[k]!
  return sum
}

/** Chance that this board harms a part that is lent to it. */
export function riskOf(odds: Float64Array): number {
  let risk = 0
  for (let h = 0; h < members.length; h++) {
    let safe = 1
    for (const i of members[h]!) safe *= 1 - (harm[faultIds[i]!] ?? 0)
    risk += odds[h]! * (1 - safe)
  }
  return risk
}
