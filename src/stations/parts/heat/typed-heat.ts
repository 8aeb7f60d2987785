import type { AtHand } from '@/core/parts/heat/heat-search'
import { benchAtHand } from '@/core/parts/heat/heat-search'
import type { HeatStep, SetUp, Solder, Target } from '@/core/parts/heat/set-up'
import { typedNumber } from '@/ui/typed-number'
import type { PartsBodies } from '@/core/parts/bodies'

/** A step of a recipe as it is typed: air and preheater empty while they are off. */
export interface TypedStep {
  readonly seconds: string
  readonly airC: string
  readonly flow: string
  readonly preheat: string
}
export interface TypedSpared {
  readonly what: string
  readonly atMm: string
  readonly bearsC: string
}
export interface TypedHeat {
  readonly target: Target
  readonly ref: string
  readonly solder: Solder
  readonly wideMm: string
  readonly highMm: string
  readonly layers: string
  readonly nozzleMm: string
  readonly distanceMm: string
  readonly roomC: string
  readonly spared: readonly TypedSpared[]
  readonly steps: readonly TypedStep[]
  readonly nozzles: string
  readonly mostAirC: string
  readonly flows: string
  readonly mostPreheat: string
}

export const noSpared: TypedSpared = { what: '', atMm: '', bearsC: '' }
export const noStep: TypedStep = { seconds: '', airC: '', flow: '', preheat: '' }

/** W/m² as W/cm², without what nobody sets. */
const perCm2 = (wm2: number) => String(Number((wm2 / 10_000).toFixed(3)))

export const typedStep = ({ seconds, airC, flow, preheatWm2 }: HeatStep): TypedStep => ({
  seconds: String(Math.round(seconds)),
  airC: airC === null ? '' : String(Math.round(airC)),
  flow: airC === null ? '' : String(flow),
  preheat: preheatWm2 > 0 ? perCm2(preheatWm2) : '',
})

const bench: TypedHeat = {
  target: 'firmware chip',
  ref: '',
  solder: 'lead-free',
  wideMm: '170',
  highMm: '170',
  layers: '',
  nozzleMm: '14',
  distanceMm: '8',
  roomC: '23',
  spared: [{ what: 'socket housing', atMm: '30', bearsC: '240' }],
  steps: [
    { seconds: '180', airC: '', flow: '', preheat: '0.3' },
    { seconds: '25', airC: '150', flow: '40', preheat: '0.3' },
    { seconds: '25', airC: '230', flow: '40', preheat: '0.3' },
    { seconds: '25', airC: '310', flow: '40', preheat: '0.3' },
    { seconds: '25', airC: '400', flow: '40', preheat: '0.3' },
    { seconds: '120', airC: '480', flow: '40', preheat: '0.3' },
  ],
  nozzles: benchAtHand.nozzlesMm.join(', '),
  mostAirC: String(benchAtHand.mostAirC),
  flows: benchAtHand.flows.join(', '),
  mostPreheat: perCm2(benchAtHand.mostPreheatWm2),
}

/** The recipe that was kept last, as it would be typed; a bench’s usual one until then. */
export const typedHeatOf = (kept?: PartsBodies['recipe']): TypedHeat =>
  kept
    ? {
        ...bench,
        target: kept.target,
        ref: kept.ref ?? '',
        solder: kept.solder,
        wideMm: String(kept.board.wideMm),
        highMm: String(kept.board.highMm),
        layers: kept.board.layers === undefined ? '' : String(kept.board.layers),
        nozzleMm: String(kept.nozzleMm),
        distanceMm: String(kept.distanceMm),
        roomC: String(kept.roomC),
        spared: kept.spared.map(({ what, atMm, bearsC }) => ({
          what,
          atMm: String(atMm),
          bearsC: String(bearsC),
        })),
        steps: kept.steps.map(typedStep),
      }
    : bench

/** Reads what was typed; an error names its field and the mend, and nothing that was typed is lost. */
export function readHeat(typed: TypedHeat): {
  readonly setUp: Omit<SetUp, 'air' | 'preheater'> | null
  readonly steps: readonly HeatStep[] | null
  readonly atHand: AtHand | null
  readonly errors: Readonly<Record<string, string>>
} {
  const errors: Record<string, string> = {}
  const within = (field: string, text: string, least: number, most: number, unit: string): number => {
    const is = typedNumber(text)
    if (!(is >= least && is <= most)) errors[field] = `${least} to ${most} ${unit}`.trim()
    return is
  }
  const several = (field: string, text: string, least: number, most: number, count: number, unit: string) => {
    const are = text
      .split(/[;\s]+|,\s*/)
      .filter(Boolean)
      .map(typedNumber)
    if (are.length === 0 || are.length > count || are.some((n) => !(n >= least && n <= most)))
      errors[field] = `one to ${count}, each ${least} to ${most} ${unit}: 5, 10`
    return are
  }
  const layers = typed.layers.trim() ? within('layers', typed.layers, 2, 20, 'layers') : undefined
  if (layers !== undefined && !errors.layers && !Number.isInteger(layers)) errors.layers = 'a whole number'
  const spared = typed.spared
    .map((s, i) => ({ ...s, i }))
    .filter((s) => s.what.trim() || s.atMm.trim() || s.bearsC.trim())
    .map(({ what, atMm, bearsC, i }) => {
      if (!what.trim()) errors[`spared ${i} what`] = 'what it is'
      return {
        what: what.trim(),
        atMm: within(`spared ${i} atMm`, atMm, 0, 200, 'mm'),
        bearsC: within(`spared ${i} bearsC`, bearsC, 30, 400, '°C'),
      }
    })
  const setUp = {
    board: {
      wideMm: within('wideMm', typed.wideMm, 20, 400, 'mm'),
      highMm: within('highMm', typed.highMm, 20, 400, 'mm'),
      ...(layers === undefined ? {} : { layers }),
    },
    target: typed.target,
    solder: typed.solder,
    nozzleMm: within('nozzleMm', typed.nozzleMm, 1, 40, 'mm'),
    distanceMm: within('distanceMm', typed.distanceMm, 1, 200, 'mm'),
    roomC: within('roomC', typed.roomC, -10, 50, '°C'),
    spared,
  }
  const set = Object.keys(errors).length === 0
  const rows = typed.steps
    .map((s, i) => ({ ...s, i }))
    .filter((s) => s.seconds.trim() || s.airC.trim() || s.flow.trim() || s.preheat.trim())
  const steps = rows.map(({ seconds, airC, flow, preheat, i }): HeatStep => {
    const off = airC.trim() === ''
    return {
      seconds: within(`step ${i} seconds`, seconds, 1, 1800, 's'),
      airC: off ? null : within(`step ${i} airC`, airC, 30, 600, '°C'),
      flow: off && !flow.trim() ? 0 : within(`step ${i} flow`, flow, 1, 200, 'l/min'),
      preheatWm2: preheat.trim() ? 10_000 * within(`step ${i} preheat`, preheat, 0, 2, 'W/cm²') : 0,
    }
  })
  if (steps.length === 0) errors['step 0 seconds'] = 'a recipe has a step at least'
  const recipe = !Object.keys(errors).some((field) => field.startsWith('step'))
  const atHand = {
    nozzlesMm: several('nozzles', typed.nozzles, 1, 40, 8, 'mm'),
    mostAirC: within('mostAirC', typed.mostAirC, 250, 600, '°C'),
    flows: several('flows', typed.flows, 1, 200, 4, 'l/min'),
    mostPreheatWm2: typed.mostPreheat.trim()
      ? 10_000 * within('mostPreheat', typed.mostPreheat, 0, 2, 'W/cm²')
      : 0,
  }
  const hand = !['nozzles', 'mostAirC', 'flows', 'mostPreheat'].some((field) => errors[field])
  return {
    setUp: set ? setUp : null,
    steps: recipe ? steps : null,
    atHand: hand ? atHand : null,
    errors,
  }
}
