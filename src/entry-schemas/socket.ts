import Joi from 'joi'
import { damageKinds } from '@/core/socket/damage/mark'
import { corners, drops } from '@/core/socket/seat/seat-reading'
import { strokeResults } from '@/core/socket/bodies'
import type { SocketBodies } from '@/core/socket/bodies'
import { body, text, some, contact, mm } from './field'
import type { Schemas } from './field'

const mark = Joi.object({
  kind: Joi.valid(...damageKinds).required(),
  leanMm: Joi.array().items(mm).length(2),
  heightMm: mm,
  touches: contact,
  twistDeg: Joi.number().min(-360).max(360),
  unsure: Joi.boolean(),
  maybe: Joi.valid(...damageKinds),
})

export const socketSchemas: Schemas<SocketBodies> = {
  pass: body<SocketBodies['pass']>({ name: some(80) }),
  looked: body<SocketBodies['looked']>({
    contacts: Joi.alternatives(Joi.valid('all'), Joi.array().items(contact).min(1).max(6500)).required(),
    photo: text(200),
  }),
  mark: body<SocketBodies['mark']>({
    contacts: Joi.array().items(contact).min(1).max(6500).required(),
    mark: mark.required(),
  }),
  stroke: body<SocketBodies['stroke']>({
    contact: contact.required(),
    technique: some(40),
    tool: some(60),
    from: text(20).allow(null).required(),
    strokes: Joi.number().integer().min(1).max(50).required(),
    result: Joi.valid(...strokeResults).required(),
    damage: Joi.valid(...damageKinds),
    touches: contact,
    predictedSnaps: Joi.number().min(0).max(1).allow(null).required(),
    snapFactor: Joi.number().greater(0).max(1000),
    light: text(120),
    magnification: text(40),
  }),
  left: body<SocketBodies['left']>({ contact: contact.required(), why: some(300) }),
  replaced: body<SocketBodies['replaced']>({
    contact: contact.required(),
    how: Joi.valid('stub raise', 'transplant', 'whole socket').required(),
    donor: text(80),
    holds: Joi.boolean().required(),
    pulledOut: Joi.array().items(contact).max(40).required(),
  }),
  school: body<SocketBodies['school']>({ school: Joi.valid('A', 'B').required() }),
  seat: body<SocketBodies['seat']>({
    cpu: some(120),
    drop: Joi.valid(...drops).required(),
    heatsink: Joi.boolean(),
    corner: Joi.valid(...corners),
    turned: Joi.boolean(),
  }),
}
