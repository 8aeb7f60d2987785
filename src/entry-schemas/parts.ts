import Joi from 'joi'
import type { PartsBodies } from '@/core/parts/bodies'
import { partDamages, partPlaces } from '@/core/parts/found'
import { body, text, some } from './field'
import type { Schemas } from './field'

export const partsSchemas: Schemas<PartsBodies> = {
  part: body<PartsBodies['part']>({
    ref: some(60),
    did: Joi.valid('found missing', 'found damaged', 'taken off', 'fitted', 'measured').required(),
    value: text(60),
    side: Joi.valid('top', 'bottom'),
    text: text(300),
    how: Joi.valid(...partDamages),
    place: Joi.valid(...partPlaces),
    net: text(80),
  }),
}
