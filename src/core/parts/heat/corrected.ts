import { fitHeat } from './heat-fit'
import type { HeatFit, HeatReading } from './heat-fit'
import type { HeatStep, SetUp } from './set-up'

interface Ran extends Omit<SetUp, 'air' | 'preheater'> {
  readonly steps: readonly HeatStep[]
  readonly readings: readonly HeatReading[]
}

/**
 * What air and preheater give on this board by all that was read while recipes ran: each recipe is fitted from where the one before
 * it left off. Null while nothing was read.
 */
export function correctedBy(recipes: readonly Ran[]): HeatFit | null {
  let fit: HeatFit | null = null
  for (const { steps, readings, ...setUp } of recipes)
    if (readings.length > 0)
      fit = fitHeat({ ...setUp, air: fit?.air ?? 1, preheater: fit?.preheater ?? 1 }, steps, readings)
  return fit
}
