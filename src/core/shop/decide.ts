import { normalCdf } from '../maths/normal'
import { percent } from '../maths/percent'
import { upperFirst } from '../sentence'
import { normalDraw, seeded } from '../maths/seeded'
import { usualFigures } from '../socket/straighten/bench-figures'
import type { BenchFigures, FigureName } from '../socket/straighten/bench-figures'
import type { FaultId } from '../triage/model/faults'
import { isStraightened, partOf, repairOf } from '../triage/model/repair'
import type { Part } from '../triage/model/repair'
import { succeeds } from '../triage/model/repair-record'
import type { RepairTally } from '../triage/model/repair-record'
import type { Belief, Way } from '../triage/reason/belief'

/** A way to go on: how likely, minutes to repair it once it is known, how often that holds, what the parts cost. */
interface WayOn {
  readonly odds: number
  readonly minutes: number
  readonly succeeds: number
  readonly partsMinor: number
}

/** Something else that can be done: what it costs the owner, how often it works out, how many days it takes. */
export interface Other {
  readonly name: string
  /** The board that came can be left here as a donor all the same. */
  readonly leavesBoard?: boolean
  readonly priceMinor: number
  readonly succeeds: number
  readonly days: number
}

export interface ToDecide {
  /** Ways exclude each other; what their odds lack to one is never repaired. */
  readonly ways: readonly WayOn[]
  /** Minutes of looking still to come before it is known which. */
  readonly lookingMinutes: number
  /** What a machine that runs is worth to its owner. */
  readonly valueMinor: number
  readonly ratePerHourMinor: number
  /** Minutes that are on the bill already, and the most it may come to; null where nothing is agreed. */
  readonly spentMinutes: number
  readonly limitMinor: number | null
  /** What the board brings its owner as it is, left here as a donor; nothing where it is left out. */
  readonly donorMinor?: number
  readonly others: readonly Other[]
}

export interface Decided {
  /** Best first, by what the owner has of it on average: value where it works, less the price. */
  readonly options: readonly Option[]
  /** Minutes after which going on is worth less than what else can be done; 0 where it never is worth more. */
  readonly stopAfterMinutes: number
  /** What it would come to if more were agreed, up to what the machine is worth; null where that is worth no more. */
  readonly beyond: {
    readonly minutes: number
    readonly runs: number
    /** The bill that is enough in nine of ten cases; never more than the machine is worth. */
    readonly billMinor: number
  } | null
  /** Of going on until then: chance that it runs, minutes and bill in the middle and in eight of ten cases. */
  readonly goingOn: {
    readonly runs: number
    readonly minutes: Spread
    readonly billMinor: Spread
  }
}
export interface Option {
  readonly is: 'go on' | 'hand it back' | 'other'
  readonly name: string
  /** On average, for the owner. */
  readonly worthMinor: number
  readonly runs: number
  readonly days: number
}
export interface Spread {
  readonly low: number
  readonly middle: number
  readonly high: number
}

/** How far the minutes of a repair scatter (standard deviation of their logarithm, bench default). */
const SCATTER = 0.6
/** No board is worked longer than that at a stretch, minutes. */
const LONGEST = 600
const DRAWS = 4000

const medianOf = (way: WayOn, looking: number) => Math.max(1, looking + way.minutes)
const isDoneBy = (way: WayOn, looking: number, minutes: number): number =>
  minutes <= 0 ? 0 : normalCdf(Math.log(minutes / medianOf(way, looking)) / SCATTER)

/** Minutes that what is agreed leaves for a repair, once its parts are paid. */
function minutesLeft(
  { limitMinor, ratePerHourMinor, spentMinutes }: Omit<ToDecide, 'ways'>,
  partsMinor = 0,
): number {
  if (limitMinor === null) return LONGEST
  if (ratePerHourMinor <= 0) return limitMinor >= partsMinor ? LONGEST : 0
  const left = Math.floor((60 * (limitMinor - partsMinor)) / ratePerHourMinor - spentMinutes)
  return Math.max(0, Math.min(LONGEST, left))
}

/**
 * What going on until a minute is worth on average, beside `otherwise`, which is had where it did not run by then:
 * Σ qᵢFᵢ(s)(V − parts) + (1 − ΣqᵢFᵢ(s))·N − rate·E[min(T, s)], with qᵢ the odds of a way times how often its repair holds, Fᵢ
 * log-normal, and none done once minutes and parts are over what is agreed. What is spent already is gone either way.
 */
export function worthUntil(of: ToDecide, otherwise: number): Float64Array {
  const { ways, lookingMinutes, valueMinor, ratePerHourMinor } = of
  const last = ways.map((way) => minutesLeft(of, way.partsMinor))
  const worth = new Float64Array(LONGEST + 1)
  worth[0] = otherwise
  let minutes = 0
  let before = 0
  for (let s = 1; s <= LONGEST; s++) {
    let done = 0
    let gained = 0
    ways.forEach((way, i) => {
      const by = way.odds * way.succeeds * isDoneBy(way, lookingMinutes, Math.min(s, last[i]!))
      done += by
      gained += by * (valueMinor - way.partsMinor)
    })
    // Minutes spent in this one: by those not done at its beginning and at its end, in the mean.
    minutes += 1 - (before + done) / 2
    before = done
    worth[s] = gained + (1 - done) * otherwise - (ratePerHourMinor / 60) * minutes
  }
  return worth
}

function spreadOf(values: Float64Array): Spread {
  const sorted = values.sort()
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!
  return { low: at(0.1), middle: at(0.5), high: at(0.9) }
}

/** Going on until a minute, played through. */
function playedOut(of: ToDecide, until: number): Decided['goingOn'] {
  const draw = seeded(2027)
  const minutes = new Float64Array(DRAWS)
  const bills = new Float64Array(DRAWS)
  let runs = 0
  for (let i = 0; i < DRAWS; i++) {
    let u = draw()
    const way = of.ways.find((w) => (u -= w.odds) < 0)
    const took = way ? medianOf(way, of.lookingMinutes) * Math.exp(SCATTER * normalDraw(draw)) : Infinity
    const last = way ? Math.min(until, minutesLeft(of, way.partsMinor)) : 0
    const holds = way !== undefined && draw() < way.succeeds && took <= last
    minutes[i] = Math.min(took, until)
    if (holds) runs++
    else minutes[i] = until
    bills[i] = ((of.spentMinutes + minutes[i]!) * of.ratePerHourMinor) / 60 + (holds ? way.partsMinor : 0)
  }
  return { runs: runs / DRAWS, minutes: spreadOf(minutes), billMinor: spreadOf(bills) }
}

/** Repair, exchange, send out or hand back: compared by what each is worth to the owner, and when to stop going on. */
export function decide(of: ToDecide): Decided {
  const { donorMinor = 0 } = of
  const others = of.others.map((other): Option => ({
    is: 'other',
    name: other.name,
    worthMinor: other.succeeds * of.valueMinor - other.priceMinor + (other.leavesBoard ? donorMinor : 0),
    runs: other.succeeds,
    days: other.days,
  }))
  const back: Option = {
    is: 'hand it back',
    name: donorMinor > 0 ? 'leave it here as a donor' : 'hand it back as it is',
    worthMinor: donorMinor,
    runs: 0,
    days: 0,
  }
  const otherwise = Math.max(back.worthMinor, ...others.map((o) => o.worthMinor))
  const worth = worthUntil(of, otherwise)
  const stop = bestOf(worth.subarray(0, minutesLeft(of) + 1))
  const goingOn = playedOut(of, stop)
  const on: Option = {
    is: 'go on',
    name: 'go on',
    worthMinor: worth[stop]!,
    runs: goingOn.runs,
    days: 0,
  }
  const options = [...(stop > 0 ? [on] : []), ...others, back].sort((a, b) => b.worthMinor - a.worthMinor)
  return { options, stopAfterMinutes: stop, beyond: beyondLimit(of, otherwise, worth[stop]!), goingOn }
}

/** The first minute of the most worth. */
const bestOf = (worth: Float64Array): number => worth.reduce((b, w, s) => (w > worth[b]! + 1e-9 ? s : b), 0)

/** Share of what a running machine is worth that more must bring for the owner to be asked for it (bench default). */
const WORTH_ASKING = 0.01

/**
 * What going on comes to where the bill may be as much as a running machine is worth, and that is worth more than what is
 * agreed. Nobody is asked for more than that, whatever is spent already.
 */
function beyondLimit(of: ToDecide, otherwise: number, within: number): Decided['beyond'] {
  if (of.limitMinor === null || of.limitMinor >= of.valueMinor) return null
  const wider = { ...of, limitMinor: of.valueMinor }
  const worth = worthUntil(wider, otherwise)
  const minutes = bestOf(worth.subarray(0, minutesLeft(wider) + 1))
  if (minutes === 0 || worth[minutes]! - within < WORTH_ASKING * of.valueMinor) return null
  const { runs, billMinor } = playedOut(wider, minutes)
  return { minutes, runs, billMinor: billMinor.high }
}

/** Minutes of looking that a bit of doubt takes, fitted on simulated benches (`docs/decisions/0039`), and of a start after each repair. */
export const MINUTES_A_BIT = 6
const START_MINUTES = 4

/** Doubt of odds, bits; what they lack to one is one more way. */
export function doubtOf(odds: readonly number[]): number {
  const rest = Math.max(0, 1 - odds.reduce((a, b) => a + b, 0))
  return [...odds, rest].reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0)
}

const figureOf: Readonly<Record<Part, FigureName>> = {
  'small part': 'smallPartMinor',
  chip: 'chipMinor',
  controller: 'controllerMinor',
  thing: 'thingMinor',
}
/** What the part of a repair costs, minor units. */
function costOf(fault: FaultId, figures: BenchFigures): number {
  const part = partOf(fault)
  return part === null ? 0 : figures[figureOf[part]]
}

/**
 * What triage makes of the board, as ways to decide by; those that are repaired alike are one. Nothing wrong needs a start, and
 * holds.
 * @param all every way it may stand, not the likeliest alone: what is left out counts as never repaired
 * @param contactsMinutes what straightening the damaged contacts takes, where that is longer than usual
 * @param factor how long going on takes against the usual minutes, by the record
 * @param figures what parts cost
 */
export function waysOf(
  all: readonly Way[],
  record: readonly RepairTally[],
  {
    factor = 1,
    contactsMinutes = 0,
    figures = usualFigures,
  }: {
    readonly factor?: number
    readonly contactsMinutes?: number
    readonly figures?: BenchFigures
  } = {},
): Pick<ToDecide, 'ways' | 'lookingMinutes'> {
  const alike = new Map<string, ToDecide['ways'][number]>()
  const minutesOf = (fault: FaultId) =>
    Math.max(repairOf(fault).minutes, isStraightened(fault) ? contactsMinutes : 0) + START_MINUTES
  for (const { faults, odds } of all) {
    const minutes = factor * (START_MINUTES + faults.reduce((sum, f) => sum + minutesOf(f), 0))
    const holds = faults.reduce((product, f) => product * succeeds(f, record), 1)
    const partsMinor = faults.reduce((sum, f) => sum + costOf(f, figures), 0)
    const key = `${minutes} ${holds} ${partsMinor}`
    alike.set(key, {
      odds: (alike.get(key)?.odds ?? 0) + odds,
      minutes,
      succeeds: holds,
      partsMinor,
    })
  }
  return {
    ways: [...alike.values()],
    lookingMinutes: factor * MINUTES_A_BIT * doubtOf(all.map((way) => way.odds)),
  }
}

/** What one more instrument would change for a job. */
export interface InstrumentWorth {
  readonly item: string
  readonly say: string
  /** Chance that its test leaves no doubt, and the same of the best test that can be made without it. */
  readonly settles: number
  readonly without: number
  /** Minutes of looking still to come, with it and without. */
  readonly lookingMinutes: number
  readonly lookingWithout: number
  /** What it is worth to this job alone: going on with it, less going on without it. */
  readonly worthMinor: number
}

/**
 * What each thing that is not at hand would change: its test takes its minutes and leaves less doubt to look through, at six
 * minutes a bit; what going on is worth rises by what that saves. One that makes nothing shorter is left out.
 * @param factor how long going on takes against the usual minutes, by the record
 */
export function instrumentsFor(
  of: ToDecide,
  { lacking, next }: Pick<Belief, 'lacking' | 'next'>,
  factor = 1,
): InstrumentWorth[] {
  const alone = decide({ ...of, others: [] })
  const worth = (d: Decided) => Math.max(...d.options.map((o) => o.worthMinor))
  const without = Math.max(0, ...next.map((s) => s.settles))
  return lacking
    .map(({ item, say, minutes, tells, settles }) => {
      const lookingMinutes = Math.max(0, of.lookingMinutes - factor * (MINUTES_A_BIT * tells - minutes))
      return {
        item,
        say,
        settles,
        without,
        lookingMinutes,
        lookingWithout: of.lookingMinutes,
        worthMinor: worth(decide({ ...of, others: [], lookingMinutes })) - worth(alone),
      }
    })
    .filter((i) => i.lookingMinutes < i.lookingWithout)
    .sort((a, b) => b.worthMinor - a.worthMinor || b.settles - a.settles)
}

/** Two sentences for the owner. */
export function sayDecided(
  { options, stopAfterMinutes, beyond, goingOn }: Decided,
  money: (minor: number) => string,
): string {
  const [first] = options
  const next = options.find((o) => o.is !== 'go on')!
  const more =
    beyond && `up to ${money(tens(beyond.billMinor))} it can be repaired here with ${percent(beyond.runs)}`
  if (first!.is === 'go on') {
    const instead =
      next.is === 'hand it back'
        ? `we would stop there and ${endsAs(next, money)}`
        : `${next.name} is the better way from there, ${days(next.days)}`
    return `It can be repaired here with ${percent(goingOn.runs)}, for ${money(tens(goingOn.billMinor.low))} to ${money(tens(goingOn.billMinor.high))} in eight of ten cases. ${
      more
        ? `After ${stopAfterMinutes} more minutes what is agreed is used up; ${more}: ask the owner`
        : `If it does not run after ${stopAfterMinutes} more minutes, ${instead}`
    }.`
  }
  if (first!.is === 'hand it back')
    return more
      ? `Within what is agreed, going on costs more, on average, than it can bring. ${upperFirst(more)}: ask the owner before it is given up.`
      : `Going on costs more, on average, than it can bring, and so does all else that is known. We would ${endsAs(first!, money)}.`
  return `${upperFirst(first!.name)} is the better way${more ? ' within what is agreed' : ''}: it works out with ${percent(first!.runs)}, ${days(first!.days)}. ${
    more
      ? `${upperFirst(more)}, and that is worth more: ask the owner`
      : stopAfterMinutes > 0
        ? `A repair here would come right with ${percent(goingOn.runs)} within ${stopAfterMinutes} minutes`
        : 'A repair here would bring less, on average'
  }.`
}
/** How it ends where nothing is worth doing. */
const endsAs = ({ worthMinor }: Option, money: (minor: number) => string) =>
  worthMinor > 0 ? `keep it here as a donor, for ${money(worthMinor)}` : 'hand it back as it is'
/** Nobody needs a bill that is only likely to the last figure. */
const tens = (minor: number) => Math.round(minor / 1000) * 1000
const days = (n: number) => (n === 0 ? 'at once' : n === 1 ? 'about a day' : `about ${n} days`)
