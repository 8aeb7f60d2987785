import Joi from 'joi'
import { faultIds } from '@/core/triage/model/faults'
import { openOutcomes, startOutcomes } from '@/core/triage/model/start-model'
import { swapParts, swapPlaces } from '@/core/triage/bodies'
import type { TriageBodies } from '@/core/triage/bodies'
import { body, some, codes, anOutcome } from './field'
import type { Schemas } from './field'

export const triageSchemas: Schemas<TriageBodies> = {
  codes: body<TriageBodies['codes']>({
    codes: codes.required(),
    atS: Joi.array()
      .items(Joi.number().min(0).max(86_400))
      .length(Joi.ref('codes.length'))
      .sort({ order: 'ascending' }),
    watchedS: Joi.number().min(0).max(86_400),
  }),
  swap: body<TriageBodies['swap']>({
    what: Joi.valid(...swapParts).required(),
    part: some(60),
    place: some(60),
    where: Joi.valid(...swapPlaces),
    knownGood: Joi.boolean().required(),
    outcome: Joi.valid(...startOutcomes, ...Object.keys(openOutcomes)).required(),
    listed: Joi.valid('yes', 'no', 'not known'),
  }),
  runs: body<TriageBodies['runs']>({
    ratedMTs: Joi.number().integer().min(100).max(20_000).allow(null).required(),
    seenMTs: Joi.number().integer().min(100).max(20_000).allow(null).required(),
    startS: Joi.number().min(0).max(3600).allow(null).required(),
    settingsKept: Joi.boolean().allow(null).required(),
  }),
  trial: body<TriageBodies['trial']>(anOutcome),
  'odds said': body<TriageBodies['odds said']>({
    odds: Joi.number().min(0).max(1).required(),
    reckoned: Joi.number().min(0).max(1).allow(null).required(),
  }),
  mended: body<TriageBodies['mended']>({
    fault: Joi.valid(...faultIds).required(),
    takes: Joi.number().min(0).max(1),
  }),
}
