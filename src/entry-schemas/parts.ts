import Joi from 'joi'
import type { PartsBodies } from '@/core/parts/bodies'
import { partDamages, partPlaces } from '@/core/parts/found'
import { pullResults } from '@/core/parts/heat/pulls'
import { padKinds } from '@/core/parts/missing/pad'
import { body, seq, text, some, day } from './field'
import { heatReading, heatSetUp, heatSteps } from './heat'
import type { Schemas } from './field'

/** Ohms or volts as a meter shows them, or that it shows nothing. */
const shown = (most: number) => Joi.alternatives(Joi.number().min(0).max(most), Joi.valid('open'))
const ohms = shown(1e9)
/** What was read of one pad. */
export const padSeen = Joi.object({
  groundOhm: ohms,
  diodeV: shown(5),
  rails: Joi.object()
    .pattern(/^[\s\S]{1,40}$/, ohms)
    .max(24),
  pins: Joi.array()
    .items(
      Joi.object({
        pin: some(40),
        does: Joi.valid(...padKinds).required(),
        ohms: ohms.required(),
      }),
    )
    .max(64),
  net: text(80).allow(''),
})
/** A part that is not there, by its name where it has one: what was read of its pads, how far they are apart, its twins. */
export const missingPart = {
  a: padSeen.required(),
  b: padSeen.required(),
  padsMm: Joi.number().greater(0).max(20),
  padWidthMm: Joi.number().greater(0).max(20),
  twins: Joi.array()
    .items(Joi.object({ ref: some(40), value: Joi.number().min(0).max(1e9).required() }))
    .max(50),
  supplyV: Joi.number().greater(0).max(60),
}

export const partsSchemas: Schemas<PartsBodies> = {
  pads: body<PartsBodies['pads']>({ ref: some(60), ...missingPart }),
  recipe: body<PartsBodies['recipe']>({
    ref: text(60),
    ...heatSetUp,
    steps: heatSteps,
    floatsAtS: Joi.number().min(0).max(36_000).allow(null).required(),
  }),
  thermocouple: body<PartsBodies['thermocouple']>(heatReading),
  part: body<PartsBodies['part']>({
    ref: some(60),
    did: Joi.valid('found missing', 'found damaged', 'taken off', 'fitted', 'measured').required(),
    value: text(60),
    side: Joi.valid('top', 'bottom'),
    text: text(300),
    how: Joi.valid(...partDamages),
    place: Joi.valid(...partPlaces),
    net: text(80),
    stock: text(80),
  }),
  'parts counted': body<PartsBodies['parts counted']>({
    place: Joi.valid(...partPlaces).required(),
    count: Joi.number().integer().min(0).max(500).required(),
    of: Joi.number().integer().min(0).max(500),
  }),
  deferred: body<PartsBodies['deferred']>({ text: some(300) }),
  'deferred settled': body<PartsBodies['deferred settled']>({
    deferred: seq,
    how: Joi.valid('done', 'signed off').required(),
    why: text(300).allow('').required(),
  }),
  awaited: body<PartsBodies['awaited']>({ what: some(120), expectedOn: day.allow(null).required() }),
  'awaited settled': body<PartsBodies['awaited settled']>({
    awaited: seq,
    how: Joi.valid('arrived', 'not coming').required(),
  }),
  pull: body<PartsBodies['pull']>({ came: Joi.valid(...pullResults).required(), donor: text(80) }),
  stock: body<PartsBodies['stock']>({
    item: some(80),
    did: Joi.valid('reserved', 'released', 'used').required(),
  }),
}
