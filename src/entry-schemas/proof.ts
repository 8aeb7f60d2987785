import Joi from 'joi'
import type { ProofBodies } from '@/core/proof/bodies'
import { body, text, some, despite } from './field'
import type { Schemas } from './field'

export const proofSchemas: Schemas<ProofBodies> = {
  proof: body<ProofBodies['proof']>({
    test: some(60),
    result: Joi.valid('pass', 'fail', 'cannot run here').required(),
    reading: text(300).allow('').required(),
    despite,
  }),
}
