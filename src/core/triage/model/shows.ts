import type { ShelfItem } from '../../board/shelf-items'
import { readRows } from '../../tables/row-reader'
import type { Finding, Row } from '../../tables/finding'
import type { BenchTest } from './bench-test'
import { benchTests } from './bench-tests'
import { openOutcomes, startOutcomes } from './start-model'

/** What a board may have to show how far a start gets. */
export const signals = ['debug LEDs', 'code display', 'code card', 'beeper'] as const
export type Signal = (typeof signals)[number]

/** What a model has of it; what nobody said is left out. */
export type Shown = Readonly<Partial<Record<Signal, boolean>>>

/** What a board model can show, as it is kept. */
export interface Shows {
  readonly name: string
  readonly shown: Shown
}

export const showsColumns = ['what', 'there'] as const

/** Reads what a model can show; findings for bad data, never an exception. */
export function readShows(
  name: string,
  rows: readonly Row[],
  columns: readonly string[],
): { readonly body: Shows | null; readonly findings: readonly Finding[] } {
  const shown: Partial<Record<Signal, boolean>> = {}
  const { findings } = readRows(rows, columns, showsColumns, 'rows', (r) => {
    const what = r.one('what', signals)
    if (shown[what] !== undefined) r.fault('what', `${what} stands twice`)
    if (r.text('there') === '') r.fault('there', 'nothing stands here: yes or no')
    shown[what] = r.yes('there', false)
  })
  return { body: findings.length > 0 ? null : { name, shown }, findings }
}

/** What a model can show as rows, in the order of `showsColumns`. */
export const showsRows = ({ shown }: Shows): string[][] =>
  signals.flatMap((what) => (shown[what] === undefined ? [] : [[what, shown[what] ? 'yes' : 'no']]))

export const sayShows = ({ shown }: Shows): string => {
  const there = signals.filter((what) => shown[what])
  return there.length > 0 ? there.join(', ') : 'nothing but fans and picture'
}

/** Whether codes can be read of it, by its own display or on a code card; what nobody said may be. */
export const showsCodes = (shown: Shown): boolean =>
  shown['code display'] !== false || shown['code card'] !== false

const DARK = 'fans, dark'
/** Outcomes of a start that are one and the same where there is no LED to tell them apart. */
const noLed: ReadonlySet<string> = new Set(openOutcomes[DARK])

const withoutLed = (outcome: string) => (outcome === 'fans, no lamp' ? DARK : outcome)

/** What was noted of starts, as of a board that may have no LEDs: that none was lit says nothing there. */
export const readAs = <E extends { readonly outcome: string; readonly earlier?: readonly string[] }>(
  seen: E,
  shown: Shown,
): E =>
  shown['debug LEDs'] === false
    ? {
        ...seen,
        outcome: withoutLed(seen.outcome),
        ...(seen.earlier ? { earlier: seen.earlier.map(withoutLed) } : {}),
      }
    : seen

/** The tests as a board without LEDs answers them: how a start goes on when the fans turn and nothing comes is one outcome. */
const withoutLeds = benchTests.map((test): BenchTest => {
  if (test.outcomes !== startOutcomes) return test
  const alike = (rows: readonly Float64Array[]) =>
    rows[0]!.map((_, i) =>
      rows.reduce((sum, row, o) => (noLed.has(startOutcomes[o]!) ? sum + row[i]! : sum), 0),
    )
  const first = startOutcomes.findIndex((o) => noLed.has(o))
  const merged = <T>(each: readonly T[], dark: T) =>
    each
      .map((one, o) => (o === first ? dark : one))
      .filter((_, o) => o === first || !noLed.has(startOutcomes[o]!))
  return {
    ...test,
    outcomes: merged<string>(startOutcomes, DARK),
    byStage: merged(test.byStage!, alike(test.byStage!)),
    odds: (ids, unknown) => {
      const odds = [...test.odds(ids, unknown)].map((p) => Float64Array.of(p))
      return Float64Array.from(merged(odds, alike(odds)), (p) => p[0]!)
    },
  }
})

/** The tests that a board can answer, as it answers them. */
export function testsOf(shown: Shown): readonly BenchTest[] {
  const all = shown['debug LEDs'] === false ? withoutLeds : benchTests
  return all.flatMap((test): readonly BenchTest[] => {
    if (test.id === 'beeps' && shown.beeper === false) return []
    if (test.id !== 'codes' || shown['code display'] !== false) return [test]
    const card: ShelfItem = 'code card'
    return showsCodes(shown) ? [{ ...test, needs: [...test.needs, card] }] : []
  })
}
