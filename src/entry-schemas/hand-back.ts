import Joi from 'joi'
import { fates, outcomes } from '@/core/hand-back/bodies'
import type { HandBackBodies } from '@/core/hand-back/bodies'
import { reassemblyChecks } from '@/core/hand-back/reassembly'
import type { SheetPart, SheetWords } from '@/core/hand-back/sheet-words'
import { body, text, some, money, despite, sha } from './field'
import type { Schemas } from './field'

const line = text(4000).allow('')
/** What a sheet said when it was signed. */
const words = Joi.object<SheetWords>({
  title: line.required(),
  complaint: line.required(),
  outcome: line.required(),
  parts: Joi.array()
    .items(
      Joi.object<SheetPart>({
        title: some(120),
        lines: Joi.array().items(line).max(5000).required(),
        none: line.required(),
      }),
    )
    .max(30)
    .required(),
  minutes: Joi.number().integer().min(0).required(),
  priceMinor: money.required(),
})

export const handBackSchemas: Schemas<HandBackBodies> = {
  advice: body<HandBackBodies['advice']>({ text: some(500) }),
  'hand-back': body<HandBackBodies['hand-back']>({
    outcome: Joi.valid(...outcomes).required(),
    priceMinor: money.required(),
    text: text().allow('').required(),
    left: Joi.number().min(0).max(1),
    warrantyMonths: Joi.number().integer().min(0).max(60),
    fate: Joi.valid(...fates),
    exchangedFor: Joi.string()
      .pattern(/^[A-Z]-\d{1,9}$/)
      .messages({ 'string.pattern.base': '{{#label}} is the tag of a board, like Q-0407' }),
    despite,
  }),
  'sheet signed': body<HandBackBodies['sheet signed']>({
    signature: sha.allow(null).required(),
    how: some(120),
    words,
  }),
  machine: body<HandBackBodies['machine']>({ came: Joi.boolean().required() }),
  reassembled: body<HandBackBodies['reassembled']>({
    check: Joi.valid(...reassemblyChecks).required(),
    ok: Joi.boolean().required(),
    note: text(300).allow('').required(),
  }),
  'late outcome': body<HandBackBodies['late outcome']>({ text: some(500), holds: Joi.boolean().required() }),
}
