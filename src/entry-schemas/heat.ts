import Joi from 'joi'
import { solders, targets } from '@/core/parts/heat/set-up'
import { some } from './field'

/** What stands still while a board is heated. */
export const heatSetUp = {
  board: Joi.object({
    wideMm: Joi.number().min(20).max(400).default(244),
    highMm: Joi.number().min(20).max(400).default(244),
    layers: Joi.number().integer().min(2).max(20),
  }).default({ wideMm: 244, highMm: 244 }),
  target: Joi.valid(...targets).required(),
  solder: Joi.valid(...solders).default('lead-free'),
  nozzleMm: Joi.number().min(1).max(40).default(10),
  distanceMm: Joi.number().min(1).max(200).default(8),
  roomC: Joi.number().min(-10).max(50).default(23),
  spared: Joi.array()
    .items(
      Joi.object({
        what: some(60),
        atMm: Joi.number().min(0).max(200).required(),
        bearsC: Joi.number().min(30).max(400).required(),
      }),
    )
    .max(12)
    .default([]),
}

/** The steps of a recipe, one after another. */
export const heatSteps = Joi.array()
  .items(
    Joi.object({
      seconds: Joi.number().greater(0).max(1800).required(),
      airC: Joi.number().min(30).max(600).allow(null).default(null),
      flow: Joi.number().min(0).max(200).default(20),
      preheatWm2: Joi.number().min(0).max(20_000).default(0),
    }),
  )
  .min(1)
  .max(20)
  .required()

/** What there is at the bench to heat with. */
export const atHand = {
  nozzlesMm: Joi.array().items(Joi.number().min(1).max(40)).min(1).max(8),
  mostAirC: Joi.number().min(250).max(600),
  flows: Joi.array().items(Joi.number().greater(0).max(200)).min(1).max(4),
  mostPreheatWm2: Joi.number().min(0).max(20_000),
}

/** A thermocouple, where, when and what it read. */
export const heatReading = {
  at: Joi.valid('joint', 'body', 'board').required(),
  s: Joi.number().min(0).max(36_000).required(),
  c: Joi.number().min(-50).max(1000).required(),
}
