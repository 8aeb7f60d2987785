import Joi from 'joi'
import { outcomes } from '@/core/hand-back/bodies'
import type { HandBackBodies } from '@/core/hand-back/bodies'
import { body, text, some, money, despite } from './field'
import type { Schemas } from './field'

export const handBackSchemas: Schemas<HandBackBodies> = {
  advice: body<HandBackBodies['advice']>({ text: some(500) }),
  'hand-back': body<HandBackBodies['hand-back']>({
    outcome: Joi.valid(...outcomes).required(),
    priceMinor: money.required(),
    text: text().allow('').required(),
    despite,
  }),
  'late outcome': body<HandBackBodies['late outcome']>({ text: some(500), holds: Joi.boolean().required() }),
}
