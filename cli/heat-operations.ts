import Joi from 'joi'
import { fitHeat } from '@/core/parts/heat/heat-fit'
import type { HeatReading } from '@/core/parts/heat/heat-fit'
import { runHeat } from '@/core/parts/heat/heat-run'
import { benchAtHand, searchHeat } from '@/core/parts/heat/heat-search'
import type { AtHand } from '@/core/parts/heat/heat-search'
import { timedList } from '@/core/parts/heat/timed-list'
import type { HeatStep, SetUp } from '@/core/parts/heat/set-up'
import { atHand, heatReading, heatSetUp, heatSteps } from '@/entry-schemas/heat'
import { runToEnd } from '@/core/run-to-end'
import { operation } from './operation'
import type { Operation } from './operation'

const setUp = {
  ...heatSetUp,
  air: Joi.number().min(0.1).max(10).default(1),
  preheater: Joi.number().min(0.1).max(10).default(1),
}

type Recipe = SetUp & { readonly steps: readonly HeatStep[] }

/** What is computed of heat. */
export const heatOperations: Readonly<Record<string, Operation>> = {
  'heat.run': operation<Recipe & { readonly everyS: number }>(
    'A heat recipe on a board: does the joint melt through, and what gets too hot on the way.',
    Joi.object({ ...setUp, steps: heatSteps, everyS: Joi.number().min(0.5).max(600).default(10) }),
    ({ steps: of, everyS, ...own }) => {
      const run = runHeat(own, of)
      // The first moment at or after each.
      const at = [...run.s.keys()].filter(
        (i) => i === 0 || Math.floor(run.s[i]! / everyS) > Math.floor(run.s[i - 1]! / everyS),
      )
      const shown = (t: Float64Array) => at.map((i) => Number(t[i]!.toFixed(1)))
      return {
        ...run.verdict,
        s: shown(run.s),
        jointC: shown(run.jointC),
        bodyC: shown(run.bodyC),
        boardC: shown(run.boardC),
        sparedC: run.sparedC.map(shown),
      }
    },
  ),
  'heat.search': operation<SetUp & { readonly atHand: AtHand }>(
    'The recipe that melts the joint and keeps furthest from what must be spared, with what is at hand.',
    Joi.object({
      ...setUp,
      atHand: Joi.object({
        nozzlesMm: atHand.nozzlesMm.default(benchAtHand.nozzlesMm),
        mostAirC: atHand.mostAirC.default(benchAtHand.mostAirC),
        flows: atHand.flows.default(benchAtHand.flows),
        mostPreheatWm2: atHand.mostPreheatWm2.default(benchAtHand.mostPreheatWm2),
      }).default(benchAtHand),
    }),
    ({ atHand: hand, ...own }) => {
      const { best: found, schools } = runToEnd(searchHeat(own, hand))
      const held = schools.map(({ school, found: of }) =>
        of
          ? {
              school,
              nozzleMm: of.setUp.nozzleMm,
              airC: of.steps.at(-1)!.airC,
              preheatWm2: of.steps.at(-1)!.preheatWm2,
              spareK: Math.round(of.spareK),
              floatsAtS: of.run.verdict.floatsAtS,
              wrong: of.run.verdict.wrong,
            }
          : { school, wrong: ['it does not melt the joint, or is not at hand'] },
      )
      return found
        ? {
            nozzleMm: found.setUp.nozzleMm,
            steps: found.steps,
            spareK: Math.round(found.spareK),
            ...found.run.verdict,
            list: timedList(found.setUp, found.steps, found.run),
            schools: held,
          }
        : {
            steps: null,
            schools: held,
            say: 'Nothing at hand melts the joint. Try it with a larger nozzle, hotter air or a preheater.',
          }
    },
  ),
  'heat.fit': operation<Recipe & { readonly readings: readonly HeatReading[] }>(
    'Corrects what air and preheater give by thermocouple readings, and says what they leave open.',
    Joi.object({
      ...setUp,
      steps: heatSteps,
      readings: Joi.array().items(Joi.object(heatReading)).max(200).required(),
    }),
    ({ steps: of, readings, ...own }) => fitHeat(own, of, readings),
  ),
}
