import { gateOf } from '@/core/job/gate'
import { jobState } from '@/core/job/job-state'
import { stations } from '@/core/board/station'
import { anyRail, ownRails } from '@/entry-schemas/field'
import Joi from 'joi'
import { powerGate } from '@/core/job/power-gate'
import { nothingSeen } from '@/core/job/gate-evidence'
import type { PowerEvidence } from '@/core/job/gate-evidence'
import { CERTAIN, moreStarts, mostFailing, sayStarts, shareOf } from '@/core/proof/cold-starts'
import { BEARS_C, fitTemperature, readTemperature } from '@/core/proof/temperature'
import { readCsv } from '@/tables/read-csv'
import { readyDates, usualHours } from '@/core/shop/promise'
import type { Hours, Promised } from '@/core/shop/promise'
import { decide } from '@/core/shop/decide'
import type { ToDecide } from '@/core/shop/decide'
import { proofPlan } from '@/core/proof/plan'
import type { Touched } from '@/core/board/station-says'
import { functionGroups } from '@/core/board/function-group'
import { stageReached } from '@/core/triage/model/stage'
import { unpackJob } from '@/server/job-zip'
import { firmwareOperations } from './firmware-operations'
import { heatOperations } from './heat-operations'
import { jobOperations } from './job-operations'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'
import { compareOperations } from './compare-operations'
import { partsOperations } from './parts-operations'
import { photoOperations } from './photo-operations'
import { routeOperations } from './route-operations'
import { socketOperations } from './socket-operations'
import { triageOperations } from './triage-operations'

const names = Joi.array().items(Joi.string())

/** What is not given is taken as in `nothingSeen`. */
const evidence = Joi.object({
  rails: Joi.array()
    .items(
      Joi.object({
        rail: anyRail.required(),
        ohms: Joi.number().min(0).required(),
        cpu: Joi.valid('in', 'out').required(),
      }),
    )
    .default([]),
  shorts: Joi.array()
    .items(
      Joi.object({
        a: Joi.string().required(),
        b: Joi.string().required(),
        nets: Joi.string().allow('').default('what they carry is not given'),
        grade: Joi.valid('gravest', 'grave', 'signal', 'harmless', 'unknown').required(),
        odds: Joi.number().min(0).max(1).required(),
      }),
    )
    .default([]),
  ownRails,
  railsOwed: Joi.array().items(anyRail),
  railsOwedWhy: Joi.string(),
  questions: Joi.array().items(Joi.object({ say: Joi.string().required(), mend: Joi.string().required() })),
  volts: Joi.array().items(
    Joi.object({
      rail: anyRail.required(),
      volts: Joi.number().required(),
      cpu: Joi.valid('in', 'out', null).required(),
      is: Joi.valid('too high', 'low').required(),
      workedOn: Joi.boolean().default(false),
    }),
  ),
  lodged: names,
  paste: names,
  touchesUnnamed: Joi.array().items(
    Joi.object({ contact: Joi.string().required(), nets: Joi.string().required() }),
  ),
  lostSense: names,
  lostUnknown: names,
  notLooked: Joi.number().integer().min(0),
  contacts: Joi.number().integer().min(0),
  notLookedNear: names,
  socketFound: Joi.string().allow(''),
  cpuFitted: Joi.boolean(),
  heatsink: Joi.boolean(),
  seat: Joi.valid('proud', 'needed force', 'turned', 'light push', null),
  pinGrid: Joi.boolean(),
  unaccounted: names,
  hazards: names,
  notTold: names,
  damagedParts: names,
  lookedOutside: Joi.boolean(),
  ranHere: Joi.boolean(),
  runs: Joi.boolean(),
  standbyHot: Joi.boolean(),
  changedWhat: Joi.string().allow(''),
  provedNothing: Joi.string().allow(''),
  chipVolts: Joi.number().allow(null).default(null),
  programmerVolts: Joi.number().allow(null).default(null),
  clipOn: Joi.boolean().default(false),
  supplyLimitA: Joi.number().greater(0).allow(null).default(null),
  provedUnderLimit: Joi.boolean().default(false),
  tripped: Joi.boolean().default(false),
})

const wall = Joi.string().pattern(
  /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/,
  'a moment of the shop’s clock, like 2026-12-01T14:30',
)
const minuteOfDay = Joi.number().integer().min(0).max(1440)
const minor = Joi.number().integer().min(0).max(1e12)

const touched = Joi.object({
  groups: Joi.array()
    .items(Joi.valid(...functionGroups))
    .default([]),
  contacts: Joi.number().integer().min(0).default(0),
  firmware: Joi.boolean().default(false),
  parts: Joi.boolean().default(false),
  cell: Joi.boolean().default(false),
  cellAlone: Joi.boolean().default(false),
  intermittent: Joi.boolean().default(false),
  ownGraphics: Joi.boolean().default(true),
})

/** Every computation that stands on the command line. */
export const operations: Readonly<Record<string, Operation>> = {
  'power.gate': operation<Partial<PowerEvidence>>(
    'May this board be powered? The lamp and its reasons, from the evidence.',
    evidence,
    (e) => powerGate({ ...nothingSeen, ...e }),
  ),

  ...socketOperations,
  ...photoOperations,

  ...triageOperations,

  ...firmwareOperations,
  ...routeOperations,

  ...partsOperations,
  ...compareOperations,
  ...heatOperations,

  ...jobOperations,

  'proof.plan': operation<Touched>(
    'What has to be proved, from the functions that were damaged or touched.',
    touched,
    (t) => ({ tests: proofPlan(t) }),
  ),

  'proof.starts': operation<{ starts: number; failures: number; certainty: number; share: number }>(
    'What cold starts prove: the share that can still fail at the most, and how many clean ones are still to be made.',
    Joi.object({
      starts: Joi.number().integer().min(0).max(1_000_000).required(),
      failures: Joi.number().integer().min(0).max(Joi.ref('starts')).default(0),
      certainty: Joi.number().greater(0).less(1).default(CERTAIN),
      share: Joi.number().greater(0).less(1).default(shareOf(false)),
    }),
    ({ starts, failures, certainty, share }) => ({
      mostFailing: mostFailing(starts, failures, certainty),
      more: moreStarts(starts, failures, certainty, share),
      say: sayStarts({ made: starts, failed: failures }, certainty),
    }),
  ),

  'proof.temperature': operation<{ log: string; bearsC: number }>(
    'Where a temperature under load levels off, from a log that may not have got there yet.',
    Joi.object({ log: Joi.string().required(), bearsC: Joi.number().min(50).max(150).default(BEARS_C) }),
    ({ log, bearsC }) => {
      const { rows, columns, uneven } = readCsv(readFile(log, 'log').toString('utf8'))
      const read = readTemperature(rows, columns)
      const findings = [...read.findings, ...uneven]
      if (!read.log || uneven.length > 0) return { fit: null, findings }
      const { curve: _, ...fit } = fitTemperature(read.log, bearsC)
      return { fit, findings }
    },
  ),

  'shop.decide': operation<ToDecide>(
    'Go on, exchange, send out or hand back: what each is worth to the owner, and the minute to stop going on.',
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
          }),
        )
        .max(20)
        .default([]),
    }),
    decide,
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
        .max(2000)
        .required(),
      hours: Joi.object({
        week: Joi.array()
          .length(7)
          .items(
            Joi.array()
              .ordered(minuteOfDay.required(), minuteOfDay.greater(0).required())
              .length(2)
              .allow(null),
          )
          .default(usualHours.week),
        closed: Joi.array()
          .items(Joi.string().pattern(/^\d{4}-\d{2}-\d{2}$/, 'a day, like 2026-12-25'))
          .max(1000)
          .default([]),
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

  'job.verify': operation<{ zip: string }>(
    'Opens a job’s ZIP, checks every hash and line, and says what it holds.',
    Joi.object({ zip: Joi.string().required() }),
    async ({ zip }) => {
      const { job, findings } = await unpackJob(readFile(zip, 'zip'))
      if (!job) return { good: false, findings }
      const state = jobState(
        job.entries,
        job.socket?.contacts.map((c) => c.name),
      )
      const gate = gateOf(state, job.socket)
      const last = state.board.baselines.at(-1)
      return {
        good: true,
        tag: job.tag,
        lines: job.entries.length,
        pictures: job.files.length,
        socket: job.socket?.name ?? null,
        stations: Object.fromEntries(stations.map((s) => [s, state.work.marks[s].mark])),
        gate: gate.lamp,
        reaches: last ? stageReached(last).say : null,
        outcome: state.handBack.done?.outcome ?? null,
        findings,
      }
    },
  ),
}
