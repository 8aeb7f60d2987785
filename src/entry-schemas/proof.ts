import Joi from 'joi'
import type { ProofBodies } from '@/core/proof/bodies'
import { body, text, some, despite } from './field'
import type { Schemas } from './field'

const celsius = Joi.number().min(-300).max(500)
const curve = Joi.object({
  s: Joi.array().items(Joi.number().min(0).max(1e6)).min(2).max(400).required(),
  c: Joi.array().items(Joi.number().min(-1000).max(2000)).length(Joi.ref('s.length')).required(),
})

const asked = { finds: Joi.number().min(0).max(1), despite }

export const proofSchemas: Schemas<ProofBodies> = {
  temperature: body<ProofBodies['temperature']>({
    name: some(120),
    readings: Joi.number().integer().min(1).max(200_000).required(),
    bearsC: celsius.required(),
    levelC: celsius.required(),
    leastC: celsius.required(),
    mostC: celsius.allow(null).required(),
    slowS: Joi.number().min(0).max(100_000).required(),
    read: curve.required(),
    curve: curve.required(),
    ...asked,
  }),
  'cold start': body<ProofBodies['cold start']>({ came: Joi.boolean().required(), ...asked }),
  proof: body<ProofBodies['proof']>({
    test: some(60),
    result: Joi.valid('pass', 'fail', 'cannot run here').required(),
    reading: text(300).allow('').required(),
    afterAll: Joi.valid(true),
    ...asked,
  }),
}
