import Joi from 'joi'
import type { ProofBodies } from '@/core/proof/bodies'
import { body, text, some, despite } from './field'
import type { Schemas } from './field'

export const proofSchemas: Schemas<ProofBodies> = {
  'cold start': body<ProofBodies['cold start']>({ came: Joi.boolean().required() }),
  proof: body<ProofBodies['proof']>({
    test: some(60),
    result: Joi.valid('pass', 'fail', 'cannot run here').required(),
    reading: text(300).allow('').required(),
    despite,
  }),
}
