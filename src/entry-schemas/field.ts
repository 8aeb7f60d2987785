import Joi from 'joi'
import { MOST_OWN_RAILS, OWN_RAIL, rails } from '@/core/board/rail'
import { CODE } from '@/core/triage/instruments/code'
import { momentOf } from '@/core/tables/plain-text'
import { benchTests } from '@/core/triage/model/bench-tests'

const noRail = {
  'string.pattern.base': `{{#label}} must be one of [${rails.join(', ')}], or a rail of its own, like chipset`,
}
/** A name for a rail of the board’s own. */
const ownName = Joi.string()
  .pattern(OWN_RAIL)
  .invalid(...rails)
/** One of the usual rails, or one of the board’s own. */
export const anyRail = Joi.string()
  .pattern(new RegExp(`^(?:${rails.join('|')})$|${OWN_RAIL.source}`))
  .messages(noRail)
const ohm = Joi.number().min(0).max(1e9)
/** Rails of a board beyond the usual ones. */
export const ownRails = Joi.array()
  .items(
    Joi.object({
      rail: ownName.required(),
      ohmsOut: ohm.required(),
      ohmsIn: ohm.allow(null).default(null),
      volts: Joi.number().min(-60).max(60).allow(null).default(null),
    }),
  )
  .max(MOST_OWN_RAILS)
  .unique('rail')

export const text = (max = 2000) => Joi.string().trim().max(max)
export const some = (max = 2000) => text(max).min(1).required()
/** The largest number of a line that the tape's column holds. */
export const MOST_LINES = 2_147_483_647
export const seq = Joi.number().integer().min(1).max(MOST_LINES).required()
export const moment = Joi.string()
  .custom((iso: string, helpers) => (momentOf(iso) === null ? helpers.error('date.real') : iso))
  .messages({ 'date.real': '{{#label}} must be a moment of the calendar, like 2026-11-24T09:00:00Z' })
/** A day of the calendar. */
export const day = Joi.string()
  .pattern(/^\d{4}-\d{2}-\d{2}$/, 'a day like 2026-12-01')
  .custom((text: string, helpers) =>
    momentOf(`${text}T00:00:00Z`) === null ? helpers.error('date.real') : text,
  )
  .messages({ 'date.real': '{{#label}} must be a day of the calendar, like 2026-12-01' })
export const contact = Joi.string().pattern(/^[A-Z]{1,3}\d{1,3}$/, 'a contact name like M31')
export const money = Joi.number().integer().min(0).max(100_000_000).allow(null)
export const mm = Joi.number().min(-5).max(5)
/** What spoke against a line and was asked about first. */
export const despite = Joi.array().items(text(400)).min(1).max(60)
export const sha = Joi.string().hex().length(64)
export const codes = Joi.array().items(Joi.string().pattern(CODE, 'two hex figures')).max(500)
export const amps = Joi.number().min(0).max(100).allow(null).required()
export const minutes = Joi.number().integer().min(0).max(100_000).allow(null)

/** What a test of the list can give. */
export const outcomesOf = (test: string): readonly string[] =>
  benchTests.flatMap((t) =>
    t.id === test ? [...t.outcomes, ...Object.keys({ ...t.open, ...t.former })] : [],
  )

/** A test of the reasoner's list and one of its outcomes. */
export const anOutcome = {
  test: Joi.valid(...benchTests.map((t) => t.id)).required(),
  outcome: Joi.string()
    .required()
    .custom((outcome: string, helpers) => {
      const { test } = helpers.state.ancestors[0] as { test: string }
      const outcomes = outcomesOf(test)
      return outcomes.includes(outcome) ? outcome : helpers.error('any.only', { valids: outcomes })
    }),
}

/** A schema of a body: its fields and no others, or it does not compile. */
export const body = <B>(keys: { readonly [K in keyof Required<B>]: Joi.Schema }): Joi.ObjectSchema =>
  Joi.object(keys)

/** A schema for each kind of a slice. */
export type Schemas<Bodies> = { readonly [K in keyof Bodies]: Joi.ObjectSchema }
