import Joi from 'joi'
import { percent } from '@/core/maths/percent'
import { calibrate, sayCalibration } from '@/core/record/calibration'
import type { Said } from '@/core/record/calibration'
import { sayFactor, timeFactor } from '@/core/record/factor'
import type { Took } from '@/core/record/factor'
import { operation } from './operation'
import type { Operation } from './operation'

/** What is computed of the record: odds and time against what came. */
export const recordOperations: Readonly<Record<string, Operation>> = {
  'record.calibration': operation<{ odds: Said[]; time: Took[] }>(
    'Odds that were said against what came of them: Brier’s score, tenths with their bounds, and the correction they need; minutes against those agreed.',
    Joi.object({
      odds: Joi.array()
        .items(Joi.object({ odds: Joi.number().min(0).max(1).required(), came: Joi.boolean().required() }))
        .max(100_000)
        .default([]),
      time: Joi.array()
        .items(
          Joi.object({
            expected: Joi.number().greater(0).max(1e6).required(),
            took: Joi.number().greater(0).max(1e6).required(),
          }),
        )
        .max(100_000)
        .default([]),
    }),
    ({ odds, time }) => {
      const calibration = calibrate(odds)
      const factor = timeFactor(time)
      return {
        calibration: { ...calibration, says: sayCalibration(calibration, percent) },
        time: { ...factor, says: time.length === 0 ? 'no job yet' : sayFactor(factor) },
      }
    },
  ),
}
