import { gateOf } from '@/core/job/gate'
import { jobState } from '@/core/job/job-state'
import { stations } from '@/core/board/station'
import { anyRail, ownRails } from '@/entry-schemas/field'
import Joi from 'joi'
import { powerGate } from '@/core/job/power-gate'
import { nothingSeen } from '@/core/job/gate-evidence'
import type { PowerEvidence } from '@/core/job/gate-evidence'
import { stageReached } from '@/core/triage/model/stage'
import { unpackJob } from '@/server/job-zip'
import { firmwareOperations } from './firmware-operations'
import { heatOperations } from './heat-operations'
import { jobOperations } from './job-operations'
import { operation, readFile } from './operation'
import type { Operation } from './operation'
import { compareOperations } from './compare-operations'
import { partsOperations } from './parts-operations'
import { photoOperations } from './photo-operations'
import { proofOperations } from './proof-operations'
import { recordOperations } from './record-operations'
import { shopOperations } from './shop-operations'
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

  ...proofOperations,
  ...shopOperations,
  ...recordOperations,

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
