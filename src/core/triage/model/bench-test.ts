import type { UsualRail } from '../../board/rail'
import { railWords } from '../../board/rail'
import { faults } from './faults'
import type { FaultId } from './faults'
import type { Sign } from './fault'
import { asItCame } from './setup'
import type { Setup } from './setup'
import { stages } from './stage'
import type { Stage } from './stage'
import { openOutcomes, outcomeByStage, startOutcomes, stopsIn } from './start-model'
import type { ShelfItem } from '../../board/shelf-items'
import type { UnknownStage } from './start-model'

/** A test, what it needs and costs, and how likely each outcome is for a board with given faults. */
export interface BenchTest {
  readonly id: string
  readonly say: string
  readonly outcomes: readonly string[]
  /** Outcomes as they may be noted that leave open which of several it was. */
  readonly open?: Readonly<Record<string, readonly string[]>>
  /** Outcomes by the names they had, as they stand on older tapes. */
  readonly former?: Readonly<Record<string, string>>
  readonly minutes: number
  readonly needs: readonly ShelfItem[]
  /** A start of the board: it asks the power gate. */
  readonly powers: boolean
  /** A known-good part this test puts into the board. */
  readonly lends: 'CPU' | 'module' | 'card' | null
  readonly setup: Setup
  /** Of what is read of a start: chance of each outcome by the stage that the start stops in. */
  readonly byStage?: readonly Float64Array[]
  /** @param unknown a stage at which something in no list stops it: seen by starts alone */
  readonly odds: (ids: readonly FaultId[], unknown?: UnknownStage) => Float64Array
}

/** The outcomes that one as it is noted stands for; none where the test has no such outcome. */
export const outcomesMeant = ({ outcomes, open, former }: BenchTest, noted: string): readonly string[] =>
  outcomes.includes(noted) ? [noted] : (open?.[noted] ?? (former?.[noted] ? [former[noted]] : []))

type Cost = readonly [minutes: number, ...needs: ShelfItem[]]

/** Power up with something changed, and look how far it gets. */
export function start(
  id: string,
  say: string,
  change: Partial<Setup>,
  [minutes, ...needs]: Cost,
  lends: BenchTest['lends'] = null,
): BenchTest {
  const setup = { ...asItCame, ...change }
  return {
    id,
    say,
    minutes,
    needs,
    lends,
    outcomes: startOutcomes,
    open: openOutcomes,
    ...shownBy(setup, outcomeByStage),
  }
}

/** What a start of a set-up shows, by the stage that it stops in. */
const shownBy = (
  setup: Setup,
  byStage: readonly Float64Array[],
): Pick<BenchTest, 'setup' | 'powers' | 'byStage' | 'odds'> => ({
  setup,
  powers: true,
  byStage,
  odds: (ids, unknown) => {
    const stops = stopsIn(ids, setup, unknown)
    return Float64Array.from(byStage, (row) => row.reduce((sum, p, i) => sum + p * stops[i]!, 0))
  },
})

/** Something read while it is powered as it came: it tells by the stage the start gets to. */
export function probe(
  id: string,
  say: string,
  outcomes: readonly string[],
  byStage: (reaches: (stage: Stage) => boolean) => readonly number[],
  cost: Cost,
): BenchTest {
  const rows = stages.map((_, i) => byStage((stage) => i > stages.indexOf(stage)))
  return readAtStop(
    id,
    say,
    Object.fromEntries(outcomes.map((outcome, o) => [outcome, rows.map((row) => row[o]!)])),
    cost,
  )
}

/** The same, by a table of each outcome’s chance at each stage. */
export const readAtStop = (
  id: string,
  say: string,
  table: Readonly<Record<string, readonly number[]>>,
  [minutes, ...needs]: Cost,
): BenchTest => ({
  id,
  say,
  minutes,
  needs,
  lends: null,
  outcomes: Object.keys(table),
  ...shownBy(
    asItCame,
    Object.values(table).map((row) => Float64Array.from(row)),
  ),
})

/** Chance that a fault's sign is come upon in so many ordinary looks. */
const shown = (id: FaultId, sign: Sign, looks: number) =>
  1 - (1 - ((faults[id].signs as Partial<Record<Sign, number>>)[sign] ?? 0)) ** looks

/** Looked at or measured without a start; `looks` is how many ordinary looks it is worth. A sign is missed or seen:
 * 1 − Π(1 − chance), with a false alarm now and then (leaky noisy-or; Pearl 1988). */
export function inspect(
  id: string,
  say: string,
  sign: Sign,
  outcomes: readonly [found: string, clear: string],
  falseAlarm: number,
  [minutes, ...needs]: Cost,
  looks = 1,
): BenchTest {
  const odds = (ids: readonly FaultId[]) => {
    const clear = ids.reduce((none, f) => none * (1 - shown(f, sign, looks)), 1 - falseAlarm)
    return Float64Array.of(1 - clear, clear)
  }
  return { id, say, minutes, needs, lends: null, setup: asItCame, powers: false, outcomes, odds }
}

/** What a look can name, by the fault it belongs to. */
export type Names = Readonly<Partial<Record<FaultId, string>>>
/** Chance that what was found is named rightly (function tables and eyes are not always right; bench default). */
const NAMED_RIGHTLY = 0.9

/** A look that also tells what was found; named wrongly it may be any of the others. */
export function look(
  id: string,
  say: string,
  sign: Sign,
  names: Names,
  falseAlarm: number,
  [minutes, ...needs]: Cost,
  looks = 1,
): BenchTest {
  const things = [...new Set(Object.values(names))]
  const odds = (ids: readonly FaultId[]) => {
    const found = new Float64Array(things.length).fill(falseAlarm / things.length)
    let clear = 1 - falseAlarm
    for (const f of ids) {
      const p = shown(f, sign, looks)
      clear *= 1 - p
      things.forEach(
        (thing, o) =>
          (found[o]! += p * (thing === names[f] ? NAMED_RIGHTLY : (1 - NAMED_RIGHTLY) / (things.length - 1))),
      )
    }
    const sum = found.reduce((all, w) => all + w, 0)
    return Float64Array.of(...found.map((w) => (w / sum) * (1 - clear)), clear)
  }
  return {
    id,
    say,
    minutes,
    needs,
    lends: null,
    setup: asItCame,
    powers: false,
    outcomes: [...things, 'clear'],
    odds,
  }
}

/** Ohms to ground of a rail: the worst fault on it decides, and a meter slips now and then. */
export function ohms(rail: UsualRail | 'other'): BenchTest {
  return {
    id: `ohms ${rail}`,
    say: `Measure ${rail === 'other' ? 'the other rails of the board' : railWords[rail]} to ground, unplugged`,
    minutes: rail === 'other' ? 4 : 1,
    needs: ['meter'],
    lends: null,
    setup: asItCame,
    powers: false,
    outcomes: ['short', 'low', 'good'],
    odds: (ids) => {
      const is = ids.flatMap((id) => {
        const of = (faults[id] as { rail?: { rail: string; is: string } }).rail
        return of?.rail === rail ? [of.is] : []
      })
      if (is.includes('short')) return Float64Array.of(0.78, 0.2, 0.02)
      if (is.includes('low')) return Float64Array.of(0.06, 0.86, 0.08)
      if (is.includes('dead')) return Float64Array.of(0.06, 0.14, 0.8)
      return Float64Array.of(0.003, 0.017, 0.98)
    },
  }
}

const comesUp: Readonly<Record<UsualRail, Stage>> = {
  standby: 'standby',
  '12v': 'power-on request',
  '5v': 'power-on request',
  '3v3': 'power-on request',
  vcore: 'rails',
  vmem: 'rails',
  vsys: 'rails',
}

/** Volts of a rail while it tries to start: missing when the start stops before it, or its own controller is dead. */
export function volts(rail: UsualRail): BenchTest {
  const up = stages.indexOf(comesUp[rail])
  return {
    id: `volts ${rail}`,
    say: `Measure the volts of ${railWords[rail]} while it tries to start`,
    minutes: 2,
    needs: ['meter'],
    lends: null,
    setup: asItCame,
    powers: true,
    outcomes: ['missing', 'there'],
    odds: (ids, unknown) => {
      const stops = stopsIn(ids, asItCame, unknown)
      const before = stops.reduce((sum, p, i) => (i <= up ? sum + p : sum), 0)
      const gone = ids.some((id) => (faults[id] as { rail?: { rail: string } }).rail?.rail === rail)
      const p = gone ? 0.96 : before * 0.95 + (1 - before) * 0.015
      return Float64Array.of(p, 1 - p)
    },
  }
}
