import Joi from 'joi'
import { stations } from '@/core/board/station'
import type { WorkBodies } from '@/core/work/bodies'
import { body, text, some, sha } from './field'
import type { Schemas } from './field'

export const workSchemas: Schemas<WorkBodies> = {
  photo: body<WorkBodies['photo']>({
    file: sha.required(),
    name: text(200).allow('').required(),
    type: text(40).required(),
    bytes: Joi.number().integer().min(0).required(),
    caption: text(300).allow('').required(),
  }),
  note: body<WorkBodies['note']>({ text: some(4000) }),
  decision: body<WorkBodies['decision']>({
    text: some(4000),
    goingOn: Joi.object({
      minutes: Joi.number().min(0).max(100_000).required(),
      spentMinutes: Joi.number().min(0).max(1_000_000).required(),
      runs: Joi.number().min(0).max(1),
    }),
  }),
  clock: body<WorkBodies['clock']>({ run: Joi.valid(...stations, null).required() }),
  station: body<WorkBodies['station']>({
    station: Joi.valid(...stations).required(),
    mark: Joi.valid('settled', 'passed over', 'open').required(),
    why: text(300).allow('').required(),
  }),
  strike: body<WorkBodies['strike']>({ why: some(300) }),
}
