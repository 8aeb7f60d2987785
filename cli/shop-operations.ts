import Joi from 'joi'
import { Support } from '@/core/firmware/route/support-table'
import type { SupportTable } from '@/core/firmware/route/support-table'
import { unknownBuild } from '@/core/shop/build'
import type { Build } from '@/core/shop/build'
import { matches, toBuy } from '@/core/shop/exchange'
import type { Kept, Model, Wanted } from '@/core/shop/exchange'
import { opinionFor } from '@/core/shop/second-opinion'
import { decide, instrumentsFor, sayDecided } from '@/core/shop/decide'
import type { ToDecide } from '@/core/shop/decide'
import { faultIds } from '@/core/triage/model/faults'
import { readyDates, usualHours } from '@/core/shop/promise'
import type { Hours, Promised } from '@/core/shop/promise'
import type { Belief, Lacking } from '@/core/triage/reason/belief'
import { day } from '@/entry-schemas/field'
import { momentOf } from '@/core/tables/plain-text'
import { BadInput, operation } from './operation'
import { known, sound, table } from './route-operations'
import type { Operation } from './operation'

/** A moment of the shop’s clock. */
const wall = Joi.string()
  .pattern(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'a moment of the shop’s clock, like 2026-12-01T14:30')
  .custom((text: string, helpers) => (momentOf(`${text}Z`) === null ? helpers.error('date.real') : text))
  .messages({ 'date.real': '{{#label}} must be a moment of the calendar, like 2026-12-01T14:30' })
const minuteOfDay = Joi.number().integer().min(0).max(1440)
const minor = Joi.number().integer().min(0).max(1e12)

type GivenModel = Omit<Model, 'support' | 'board' | 'build'> & {
  readonly build: Partial<Build>
  readonly board?: string
  readonly table: SupportTable | null
}

/** What is computed for the shop: worth, promises. */
export const shopOperations: Readonly<Record<string, Operation>> = {
  'shop.decide': operation<
    ToDecide & {
      readonly instruments: readonly (Omit<Lacking, 'item'> & { readonly item: string })[]
      readonly opinion: Pick<Belief, 'causes' | 'made'> | null
    }
  >(
    'Go on, exchange, send out or hand back: what each is worth to the owner, the minute to stop going on, and what one more instrument or a second opinion would change.',
    Joi.object({
      ways: Joi.array()
        .items(
          Joi.object({
            odds: Joi.number().min(0).max(1).required(),
            minutes: Joi.number().min(0).max(10_000).required(),
            succeeds: Joi.number().min(0).max(1).required(),
            partsMinor: minor.default(0),
          }),
        )
        .max(200)
        .required()
        .custom((ways: ToDecide['ways'], helpers) =>
          ways.reduce((sum, w) => sum + w.odds, 0) > 1 + 1e-9
            ? helpers.error('any.custom', {
                error: new Error('odds of ways that exclude each other are at most one'),
              })
            : ways,
        ),
      lookingMinutes: Joi.number().min(0).max(10_000).default(0),
      valueMinor: minor.required(),
      ratePerHourMinor: minor.greater(0).default(60_000),
      spentMinutes: Joi.number().min(0).max(100_000).default(0),
      limitMinor: minor.allow(null).default(null),
      others: Joi.array()
        .items(
          Joi.object({
            name: Joi.string().max(80).required(),
            priceMinor: minor.required(),
            succeeds: Joi.number().min(0).max(1).required(),
            days: Joi.number().integer().min(0).max(365).required(),
            leavesBoard: Joi.boolean().default(false),
          }),
        )
        .max(20)
        .default([]),
      donorMinor: minor.default(0),
      instruments: Joi.array()
        .items(
          Joi.object({
            item: Joi.string().max(80).required(),
            say: Joi.string().max(200).default(''),
            minutes: Joi.number().min(0).max(10_000).required(),
            tells: Joi.number().min(0).max(20).required(),
            settles: Joi.number().min(0).max(1).default(0),
          }),
        )
        .max(20)
        .default([]),
      opinion: Joi.object({
        causes: Joi.array()
          .items(
            Joi.object({
              faults: Joi.array()
                .items(Joi.valid(...faultIds))
                .max(2)
                .required(),
              odds: Joi.number().min(0).max(1).required(),
            }),
          )
          .max(50)
          .required(),
        made: Joi.array().items(Joi.string().max(80)).max(200).default([]),
      })
        .allow(null)
        .default(null),
    }),
    ({ instruments, opinion, ...of }) => {
      const decided = decide(of)
      return {
        ...decided,
        say: sayDecided(decided, (minor) => String(minor / 100)),
        instruments: instrumentsFor(of, { lacking: instruments as Lacking[], next: [] }),
        opinion: opinion && opinionFor(of, opinion),
      }
    },
  ),

  'shop.exchange': operation<{
    wanted: Omit<Wanted, 'build'>
    models: readonly GivenModel[]
    stock: readonly (Omit<Kept, 'model'> & { readonly modelId: string })[]
  }>(
    'Boards of verified stock that could stand in for one that came, best first, what is to be looked at, which are not offered and why; and what could be bought.',
    Joi.object({
      wanted: Joi.object({
        boardModelId: Joi.string().max(60).allow(null).required(),
        revision: Joi.string().max(40).allow('').default(''),
        cpu: Joi.string().max(120).allow('').default(''),
        memory: Joi.string().max(120).allow('').default(''),
        diskLock: Joi.valid('unknown', 'no', 'yes, owner told').default('unknown'),
        socketId: Joi.string().max(60).allow(null).default(null),
        name: Joi.string().max(120).allow(null).default(null),
      }).required(),
      models: Joi.array()
        .items(
          Joi.object({
            id: Joi.string().max(60).required(),
            name: Joi.string().max(120).required(),
            board: Joi.string().max(120),
            socketId: Joi.string().max(60).allow(null).default(null),
            table: table.allow(null).default(null),
            build: Joi.object({
              memoryKind: Joi.string().max(60).allow(null),
              memorySlots: Joi.number().integer().min(0).max(16).allow(null),
              sizeMm: Joi.array().items(Joi.number().min(50).max(600)).length(2).allow(null),
              cardSlots: Joi.array().items(Joi.number().integer().min(1).max(32)).max(12).allow(null),
              supplyPins: Joi.array().items(Joi.number().integer().min(1).max(40)).max(8).allow(null),
            }).default({}),
          }),
        )
        .unique('id')
        .max(500)
        .required(),
      stock: Joi.array()
        .items(
          Joi.object({
            tag: Joi.string().max(20).required(),
            modelId: Joi.string().max(60).required(),
            revision: Joi.string().max(40).allow('').default(''),
            release: Joi.string().max(60).allow(null).default(null),
            unproved: Joi.array().items(Joi.string().max(400)).max(60).required(),
          }),
        )
        .unique('tag')
        .max(500)
        .default([]),
    }),
    ({ wanted, models: given, stock }) => {
      const models = given.map(({ table: of, board, build, ...m }, i) => {
        if (of) sound(of, `models.${i}.table`)
        return {
          ...m,
          board: board ?? m.name,
          support: of && new Support(of),
          build: { ...unknownBuild, ...build },
        }
      })
      const kept = stock.map(({ modelId, ...k }, i) => {
        const model = models.find((m) => m.id === modelId)
        if (!model) throw new BadInput(`stock.${i}.modelId`, `${modelId} is none of the models`)
        if (model.support) known(model.support.table, k.release, `stock.${i}.release`)
        return { ...k, model }
      })
      const its = models.find((m) => m.id === wanted.boardModelId)
      const of = {
        ...wanted,
        name: wanted.name ?? its?.name ?? null,
        build: its?.build ?? unknownBuild,
        socketId: wanted.socketId ?? its?.socketId ?? null,
      }
      return { matches: matches(of, kept), toBuy: toBuy(of, models) }
    },
  ),

  'shop.promise': operation<{ queue: Promised[]; hours: Hours; now: string }>(
    'When each job of a queue is ready, in the middle and with 80 %, whether its promise is kept, and what keeps it.',
    Joi.object({
      queue: Joi.array()
        .items(
          Joi.object({
            id: Joi.string().max(80).required(),
            minutesLeft: Joi.number().min(0).max(1e6).required(),
            notBefore: wall.allow(null).default(null),
            promisedAt: wall.allow(null).default(null),
          }),
        )
        .unique('id')
        .max(2000)
        .required(),
      hours: Joi.object({
        week: Joi.array()
          .length(7)
          .items(
            Joi.array()
              .ordered(
                minuteOfDay.required(),
                minuteOfDay.greater(Joi.ref('0')).required().messages({
                  'number.greater': 'it ends before it begins: give minutes of the day from, to',
                }),
              )
              .length(2)
              .allow(null),
          )
          .default(usualHours.week),
        closed: Joi.array().items(day).max(1000).default([]),
        people: Joi.number().integer().min(1).max(50).default(1),
      }).default(usualHours),
      now: wall.required(),
    }),
    ({ queue, hours, now }) => {
      if (!hours.week.some((open) => open && open[1] > open[0]))
        throw new BadInput('hours.week', 'no weekday has bench hours: nothing is ever ready')
      return { ready: readyDates(queue, hours, now) }
    },
  ),
}
