import Joi from 'joi'
import { lookHazards, testsThatLook } from '@/core/board/hazard'
import { railTold } from '@/core/board/bodies'
import type { BoardBodies } from '@/core/board/bodies'
import { lineOfTest } from '@/core/triage/test-line'
import { anyRail, body, text, some, codes, amps, outcomesOf } from './field'
import type { Schemas } from './field'

/** A look that answers a test says what that outcome of it says, and nothing else. */
const asTested: Joi.CustomValidator<BoardBodies['look']> = (look, helpers) => {
  const { test, seen } = look
  if (test === undefined) return look
  const line = lineOfTest({ test, outcome: seen })
  const odd = !outcomesOf(test).includes(seen)
    ? 'seen'
    : (['what', 'clear', 'hazard'] as const).find(
        (field) => line.kind !== 'look' || line.body[field] !== look[field],
      )
  if (odd === undefined) return look
  const { path } = helpers.state
  return helpers.error('any.invalid', undefined, helpers.state.localize!([...(path ?? []), odd]))
}

export const boardSchemas: Schemas<BoardBodies> = {
  rail: body<BoardBodies['rail']>({
    rail: anyRail.required(),
    ohms: Joi.number().min(0).max(1e9).allow(null).required(),
    is: Joi.when('ohms', { is: null, then: Joi.valid(...railTold).required(), otherwise: Joi.forbidden() }),
    cpu: Joi.when('ohms', {
      is: null,
      then: Joi.valid('in', 'out', null).required(),
      otherwise: Joi.valid('in', 'out').required(),
    }),
  }),
  volts: body<BoardBodies['volts']>({
    rail: anyRail.required(),
    volts: Joi.number().min(-60).max(60).allow(null).required(),
    is: Joi.when('volts', {
      is: null,
      then: Joi.valid('missing', 'there').required(),
      otherwise: Joi.forbidden(),
    }),
  }),
  cell: body<BoardBodies['cell']>({
    volts: Joi.number().min(0).max(5).allow(null).required(),
    is: Joi.when('volts', {
      is: null,
      then: Joi.valid('low', 'good').required(),
      otherwise: Joi.forbidden(),
    }),
    where: Joi.valid('by itself', 'at the board'),
    isNew: Joi.boolean(),
  }),
  current: body<BoardBodies['current']>({
    name: text(120).allow('').required(),
    samples: Joi.number().integer().min(20).max(500_000).required(),
    pattern: Joi.valid('none', 'standby', 'steady', 'cycling', 'trips').required(),
    standbyA: amps,
    plateauA: amps,
    peakA: Joi.number().min(0).max(100).required(),
    periodS: Joi.number().min(0).max(86_400).allow(null).required(),
    segments: Joi.array()
      .items(
        Joi.object({
          kind: Joi.valid('off', 'standby', 'inrush', 'steady', 'cycling').required(),
          fromS: Joi.number().required(),
          toS: Joi.number().required(),
          amps: Joi.number().min(-100).max(100).required(),
          periodS: Joi.number().min(0).allow(null).required(),
        }),
      )
      .min(1)
      .max(100)
      .required(),
    curve: Joi.object({
      s: Joi.array().items(Joi.number()).min(2).max(1400).required(),
      a: Joi.array().items(Joi.number().min(-100).max(100)).length(Joi.ref('s.length')).required(),
    }).required(),
  }),
  baseline: body<BoardBodies['baseline']>({
    fans: Joi.valid('off', 'twitch', 'restarts', 'on', 'not noted').required(),
    fanSpeed: Joi.valid('full speed', 'settle'),
    current: Joi.valid('none', 'standby', 'steady', 'cycling', 'trips', 'not noted').required(),
    amps: Joi.number().min(0).max(100).allow(null).required(),
    lamp: Joi.valid(
      'none',
      'cpu',
      'memory',
      'graphics',
      'boot',
      'in turn',
      'flashing',
      'not noted',
    ).required(),
    beeps: text(100).allow('').required(),
    cpuHeat: Joi.valid('cold', 'warm', 'hot', 'not noted').required(),
    codes: codes.required(),
    picture: Joi.valid('none', 'maker screen', 'settings screen', 'system loads', 'not noted').required(),
  }),
  fitted: body<BoardBodies['fitted']>({
    cpu: text(120).allow(null),
    heatsink: Joi.boolean(),
    modules: Joi.array().items(text(80)).max(16),
    card: text(120).allow(null),
    drive: text(120).allow(null),
  }).min(1),
  supply: body<BoardBodies['supply']>({ limitA: Joi.number().greater(0).max(60).allow(null).required() }),
  look: body<BoardBodies['look']>({
    what: some(120),
    seen: some(500),
    clear: Joi.boolean().required(),
    hazard: Joi.when('clear', {
      is: true,
      then: Joi.valid('harmless'),
      otherwise: Joi.valid(...lookHazards),
    }),
    test: Joi.valid(...testsThatLook),
  }).custom(asTested),
  missing: body<BoardBodies['missing']>({ what: some(200), from: some(120) }),
  accounted: body<BoardBodies['accounted']>({
    item: Joi.alternatives(
      Joi.number().integer().min(1).strict(),
      Joi.string().pattern(/^[1-9]\d{0,8}\/\d{1,4}$/, 'an item of a line, like 12/0'),
    ).required(),
    where: some(200),
  }),
}
