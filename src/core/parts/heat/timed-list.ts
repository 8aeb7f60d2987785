import type { HeatRun } from './heat-run'
import { bodies, liquidusC, OVER_S } from './set-up'
import type { HeatStep, SetUp, Target } from './set-up'

/** One line of what is done at the bench, and when. */
export interface TimedStep {
  readonly atS: number
  readonly say: string
}

const nudge: Readonly<Record<Target, string>> = {
  'firmware chip': 'nudge the chip with the tweezers: lift it only when it floats, never pull',
  'small part': 'touch the part from the side: lift it only when it floats, never push',
  'single contact': 'touch the contact: draw it out only when it floats, straight up, never bend it out',
  'one joint': 'watch the joint: it turns bright and settles; hold still until it does',
  socket: 'nudge a corner: lift it only when all four corners float, never pry',
}

/** What comes after it floats, by target. */
const after: Readonly<Record<Target, string>> = {
  'firmware chip': 'air off, preheater off; leave the board still until it is below 60 °C',
  'small part': 'air off, preheater off; leave the board still until it is below 60 °C',
  'single contact':
    'air off; set the new contact upright on its fresh solder, as deep as its neighbours, and hold it until the joint is dull',
  'one joint': 'air off, preheater off; leave the board still until it is below 60 °C',
  socket: 'air off, preheater down slowly; leave the board still until it is below 60 °C',
}

const deg = (c: number) => `${Math.round(c / 5) * 5} °C`

/** Minutes and seconds, as a clock at the bench shows them. */
export const sayMoment = (seconds: number): string => {
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}

/** A kept recipe in one line. */
export function sayRecipe({
  target,
  ref,
  nozzleMm,
  distanceMm,
  steps,
  floatsAtS,
}: Pick<SetUp, 'target' | 'nozzleMm' | 'distanceMm'> & {
  readonly ref?: string
  readonly steps: readonly HeatStep[]
  readonly floatsAtS: number | null
}): string {
  const air = Math.max(...steps.map((s) => s.airC ?? 0))
  const preheat = Math.max(...steps.map((s) => s.preheatWm2))
  return [
    ref ? `${target} ${ref}` : target,
    `nozzle ${nozzleMm} mm at ${distanceMm} mm`,
    preheat > 0 ? `preheat ${(preheat / 10_000).toFixed(2)} W/cm²` : 'no preheat',
    air > 0 ? `air to ${deg(air)}` : 'no air',
    floatsAtS === null ? 'never floats' : `floats at ${sayMoment(floatsAtS)}`,
  ].join(', ')
}

/** The board beside the target at a moment of a run, °C. */
const boardAt = ({ s, boardC }: HeatRun, at: number): number => {
  const i = s.findIndex((t) => t >= at)
  return boardC[i < 0 ? boardC.length - 1 : i]!
}

/**
 * A recipe as a list to follow at the bench: each change with its moment, what the board beside should read by then, when it is to
 * float, and what comes after. Where it never floats there is no lifting.
 */
export function timedList(
  setUp: Pick<SetUp, 'target' | 'solder' | 'nozzleMm' | 'distanceMm'>,
  steps: readonly HeatStep[],
  run: HeatRun,
): readonly TimedStep[] {
  const { target, solder, nozzleMm, distanceMm } = setUp
  const list: TimedStep[] = []
  const floats = run.verdict.floatsAtS
  let at = 0
  let before: Pick<HeatStep, 'airC' | 'flow' | 'preheatWm2'> = { airC: null, flow: 0, preheatWm2: 0 }
  for (const step of steps) {
    if (floats !== null && at >= floats) break
    const until = at + step.seconds
    const says: string[] = []
    if (step.preheatWm2 !== before.preheatWm2)
      says.push(
        step.preheatWm2 > 0
          ? `preheater ${before.preheatWm2 > 0 ? 'to' : 'on at'} ${(step.preheatWm2 / 10_000).toFixed(2)} W/cm²`
          : 'preheater off',
      )
    if (step.airC !== before.airC || (step.airC !== null && step.flow !== before.flow))
      says.push(
        step.airC === null
          ? 'air off'
          : before.airC === null
            ? `air on at ${deg(step.airC)}, ${step.flow} l/min, nozzle ${nozzleMm} mm at ${distanceMm} mm`
            : `air to ${deg(step.airC)}${step.flow === before.flow ? '' : `, ${step.flow} l/min`}`,
      )
    if (says.length > 0) {
      const reads = step.airC === null && step.preheatWm2 > 0
      const then = reads
        ? `; the board beside should read ${deg(boardAt(run, until))} after ${step.seconds} s`
        : ''
      list.push({ atS: at, say: says.join(', ') + then })
    }
    before = step
    at = until
  }
  if (floats === null) return list
  const liquid = Math.max(0, floats - OVER_S)
  return [
    ...list.filter((l) => l.atS <= floats),
    {
      atS: liquid,
      say: `about here the solder is liquid (${liquidusC[solder]} °C and some): ${bodies[target].sideMm > 20 ? 'wait for all of it' : 'wait'}`,
    },
    { atS: floats, say: nudge[target] },
    { atS: floats, say: after[target] },
  ]
}
