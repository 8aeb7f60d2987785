/** One figure the bench reckons with: what it is, its unit, the bench default and what may be set. */
interface Figure {
  readonly what: string
  readonly unit: 'money' | 'minutes' | 'share'
  readonly usual: number
  readonly least: number
  readonly most: number
}

const share = (what: string, usual: number): Figure => ({ what, unit: 'share', usual, least: 0, most: 1 })
const minutes = (what: string, usual: number): Figure => ({
  what,
  unit: 'minutes',
  usual,
  least: 0,
  most: 600,
})
const money = (what: string, usual: number): Figure => ({
  what,
  unit: 'money',
  usual,
  least: 0,
  most: 100_000_000,
})

/** Bench defaults that a shop may set to its own; money in minor units. */
export const benchFigures = {
  hourMinor: money('an hour at the bench', 60_000),
  boardMinor: money('a board while its ticket does not say', 100_000),
  strokeMinutes: { ...minutes('a stroke with the look after it', 1), least: 0.1 },
  withALoss: share('a board that runs with a function lost, of a whole one', 0.6),
  mended: share('runs whole once every contact works again', 0.97),
  raiseHolds: share('a raised stub holds', 0.8),
  raiseHarms: share('raising a stub harms a neighbour', 0.02),
  raiseMinutes: minutes('raising a stub', 8),
  raiseSetUp: minutes('setting up to raise stubs', 3),
  transplantHolds: share('a transplant holds', 0.72),
  transplantHarms: share('a transplant harms a neighbour', 0.12),
  transplantMinutes: minutes('a transplant', 25),
  transplantSetUp: minutes('setting up to transplant', 20),
  socketHolds: share('a whole new socket holds', 0.82),
  socketHarms: share('changing the socket harms the board', 0.08),
  socketMinutes: minutes('changing the whole socket', 190),
  exchangeHolds: share('another board runs', 0.96),
  exchangeMinutes: minutes('moving the owner over to another board', 40),
  smallPartMinor: money('a small part or a coin cell', 500),
  chipMinor: money('a firmware chip', 4_000),
  controllerMinor: money('a controller, a chipset or a slot', 15_000),
  thingMinor: money('a module, CPU, drive, card, cooler or supply', 40_000),
} as const satisfies Readonly<Record<string, Figure>>

export type FigureName = keyof typeof benchFigures
export type BenchFigures = Readonly<Record<FigureName, number>>
export const figureNames = Object.keys(benchFigures) as FigureName[]

/** What is wrong with a value for a figure, or null. */
export function figureFault(name: FigureName, value: number): string | null {
  const { least, most, unit } = benchFigures[name]
  if (value >= least && value <= most) return null
  if (unit === 'share') return 'a share from 0 to 1, such as 0.8'
  if (unit === 'minutes') return `minutes from ${least} to ${most}`
  return 'an amount from 0 up'
}

/** The shop's own figures over the bench defaults; what is no figure or out of its range does not count. */
export const figuresOf = (own: Readonly<Partial<Record<FigureName, number>>>): BenchFigures =>
  Object.fromEntries(
    figureNames.map((name) => {
      const value = own[name]
      return [
        name,
        value !== undefined && figureFault(name, value) === null ? value : benchFigures[name].usual,
      ]
    }),
  ) as Record<FigureName, number>

export const usualFigures = figuresOf({})

/** What so many minutes cost, minor units. */
export const minutesMinor = (minutes: number, { hourMinor }: BenchFigures): number =>
  (minutes / 60) * hourMinor
/** What a lost contact costs: a transplant, one contact and setting up for it, minor units. */
export const lostMinor = (figures: BenchFigures): number =>
  minutesMinor(figures.transplantMinutes + figures.transplantSetUp, figures)
