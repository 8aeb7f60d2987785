import Joi from 'joi'
import type { FirmwareBodies } from '@/core/firmware/bodies'
import { body, text } from './field'
import type { Schemas } from './field'

export const firmwareSchemas: Schemas<FirmwareBodies> = {
  firmware: body<FirmwareBodies['firmware']>({
    version: text(60),
    chip: text(60),
    chipVolts: Joi.number().min(0.5).max(12),
    programmerVolts: Joi.number().min(0.5).max(12),
    clipOn: Joi.boolean(),
    did: text(500),
  }).min(1),
}
