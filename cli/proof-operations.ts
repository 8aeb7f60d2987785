import Joi from 'joi'
import { functionGroups } from '@/core/board/function-group'
import type { Touched } from '@/core/board/station-says'
import { CERTAIN, moreStarts, mostFailing, sayStarts, shareOf } from '@/core/proof/cold-starts'
import { proofPlan } from '@/core/proof/plan'
import {
  BEARS_C,
  keptTemperature,
  readTemperature,
  sayTemperature,
  verdictOf,
} from '@/core/proof/temperature'
import { readCsv } from '@/tables/read-csv'
import { operation, readFile } from './operation'
import type { Operation } from './operation'

const touched = Joi.object({
  groups: Joi.array()
    .items(Joi.valid(...functionGroups))
    .default([]),
  contacts: Joi.number().integer().min(0).default(0),
  firmware: Joi.boolean().default(false),
  parts: Joi.boolean().default(false),
  cell: Joi.boolean().default(false),
  cellAlone: Joi.boolean().default(false),
  intermittent: Joi.boolean().default(false),
  ownGraphics: Joi.boolean().default(true),
})

/** What is computed of the proof. */
export const proofOperations: Readonly<Record<string, Operation>> = {
  'proof.plan': operation<Touched>(
    'What has to be proved, from the functions that were damaged or touched.',
    touched,
    (t) => ({ tests: proofPlan(t) }),
  ),

  'proof.starts': operation<{ starts: number; failures: number; certainty: number; share: number }>(
    'What cold starts prove: the share that can still fail at the most, and how many clean ones are still to be made.',
    Joi.object({
      starts: Joi.number().integer().min(0).max(1_000_000).required(),
      failures: Joi.number().integer().min(0).max(Joi.ref('starts')).default(0),
      certainty: Joi.number().greater(0).less(1).default(CERTAIN),
      share: Joi.number().greater(0).less(1).default(shareOf(false)),
    }),
    ({ starts, failures, certainty, share }) => ({
      mostFailing: mostFailing(starts, failures, certainty),
      more: moreStarts(starts, failures, certainty, share),
      say: sayStarts({ made: starts, failed: failures }, certainty),
    }),
  ),

  'proof.temperature': operation<{ log: string; bearsC: number }>(
    'Where a temperature under load levels off, from a log that may not have got there yet.',
    Joi.object({ log: Joi.string().required(), bearsC: Joi.number().min(50).max(150).default(BEARS_C) }),
    ({ log, bearsC }) => {
      const { rows, columns, uneven } = readCsv(readFile(log, 'log').toString('utf8'))
      const read = readTemperature(rows, columns)
      const findings = [...read.findings, ...uneven]
      if (!read.log || uneven.length > 0) return { fit: null, findings }
      const kept = keptTemperature(log, read.log, bearsC)
      const { readings, levelC, leastC, mostC, slowS } = kept
      return {
        fit: {
          readings,
          levelC,
          leastC,
          mostC,
          slowS,
          bearsC,
          verdict: verdictOf(kept),
          say: sayTemperature(kept),
        },
        findings,
      }
    },
  ),
}
