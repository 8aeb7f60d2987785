import Joi from 'joi'
import { historyItems } from '@/core/board/history-item'
import { knownBy } from '@/core/intake/known-by'
import { MOST_PHOTOS } from '@/core/intake/bodies'
import type { IntakeBodies } from '@/core/intake/bodies'
import { anOutcome, ownRails, body, text, some, seq, moment, money, sha, minutes } from './field'
import type { Schemas } from './field'

const ticket = Joi.object({
  boardModelId: text(60).allow(null),
  board: text(120).allow(''),
  revision: text(40).allow(''),
  serial: text(80).allow(''),
  socketId: text(60).allow(null),
  rails: ownRails,
  use: text(120).allow(''),
  complaint: text().allow(''),
  cpu: text(120).allow(''),
  memory: text(200).allow(''),
  history: Joi.array()
    .items(Joi.valid(...historyItems))
    .unique(),
  valueMinor: money,
  limitMinor: money,
  minutesPromised: minutes,
  promisedAt: moment.allow(null),
  warranty: Joi.valid('unknown', 'none', 'in warranty', 'paid repair offered'),
  warrantyDecision: text(500).allow(''),
  diskLock: Joi.valid('unknown', 'no', 'yes, owner told'),
}).min(1)

export const intakeSchemas: Schemas<IntakeBodies> = {
  ticket: body<IntakeBodies['ticket']>({ set: ticket.required(), kept: Joi.number().min(0).max(1) }),
  claim: body<IntakeBodies['claim']>({
    text: some(),
    opinion: Joi.object({ asked: seq, by: some(80) }),
  }),
  'opinion asked': body<IntakeBodies['opinion asked']>({
    text: some(),
    of: text(80).allow('').required(),
    photos: Joi.array().items(sha).unique().max(MOST_PHOTOS).required(),
  }),
  'claim weighed': body<IntakeBodies['claim weighed']>({
    claim: seq,
    ...anOutcome,
    reliability: Joi.number().min(0).max(1).required(),
    knows: Joi.valid(...knownBy),
  }),
  'claim checked': body<IntakeBodies['claim checked']>({
    claim: seq,
    verdict: Joi.valid('holds', 'wrong', 'cannot tell').required(),
    how: text().allow('').required(),
  }),
  consent: body<IntakeBodies['consent']>({
    risks: Joi.array().items(text(400)).required(),
    limitMinor: money.required(),
    signature: sha.allow(null).required(),
    how: text(120).allow('').required(),
  }),
  offer: body<IntakeBodies['offer']>({
    text: some(),
    limitMinor: money.required(),
    minutes: minutes.required(),
  }),
  'offer answered': body<IntakeBodies['offer answered']>({
    offer: seq,
    approved: Joi.boolean().required(),
    how: text(300).allow('').required(),
  }),
}
