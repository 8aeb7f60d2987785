import Joi from 'joi'
import { createHash } from 'node:crypto'
import { rails, stations } from '@/core/job/entry'
import { powerGate } from '@/core/job/power-gate'
import type { PowerEvidence } from '@/core/job/power-gate'
import { powerEvidence } from '@/core/job/power-evidence'
import { jobState } from '@/core/job/state'
import { proofPlan } from '@/core/proof/plan'
import type { Touched } from '@/core/proof/plan'
import { assess } from '@/core/socket/assess'
import { clusters } from '@/core/socket/cluster'
import { damageKinds } from '@/core/socket/mark'
import type { Marks } from '@/core/socket/mark'
import { afterPlan, plan } from '@/core/socket/plan'
import type { School } from '@/core/socket/plan'
import { fieldOf, functionGroups, trusts } from '@/core/socket/socket'
import type { Socket } from '@/core/socket/socket'
import { stageReached } from '@/core/triage/stage'
import { unpackJob } from '@/stations/job/job-zip'
import { readContactCsv } from '@/stations/socket/contact-csv'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'
import { triageOperations } from './triage-operations'

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

const name = Joi.string().pattern(/^[A-Z]{1,3}\d{1,3}$/)
const mm = Joi.number().min(-5).max(5)
const marks = Joi.object().pattern(
  name,
  Joi.object({
    kind: Joi.valid(...damageKinds).required(),
    leanMm: Joi.array().items(mm).length(2),
    heightMm: mm,
    touches: name,
    twistDeg: Joi.number().min(-360).max(360),
    unsure: Joi.boolean(),
  }),
)
const contact = Joi.object({
  name: name.required(),
  xMm: Joi.number().min(-100).max(100).required(),
  yMm: Joi.number().min(-100).max(100).required(),
  group: Joi.valid(...functionGroups).default('unknown'),
  net: Joi.string()
    .max(80)
    .default((parent: { name: string }) => parent.name),
  beamDeg: Joi.number().default(0),
  trust: Joi.valid(...trusts).default('none'),
})

/** A field: contacts in the request, or a contact table by path. */
interface FieldInput {
  readonly kind: Socket['kind']
  readonly table?: string
  readonly contacts?: Socket['contacts']
  readonly pitchMm?: number
}
const field = {
  kind: Joi.valid('land-grid', 'pin-grid').default('land-grid'),
  table: Joi.string(),
  contacts: Joi.array().items(contact).min(1).max(6500).unique('name'),
  pitchMm: Joi.number().greater(0).max(10),
}

function socketOf(input: FieldInput, wanted: Marks): Socket {
  let { contacts, pitchMm } = input
  if (input.table !== undefined) {
    const table = readContactCsv(readFile(input.table, 'table').toString('utf8'))
    const wrong = table.findings.find((f) => f.level === 'error')
    if (wrong) throw new BadInput('table', `line ${wrong.line}, ${wrong.field}: ${wrong.text}`)
    contacts = table.contacts
    pitchMm ??= table.pitchMm ?? 1
  }
  const socket: Socket = {
    id: 'given',
    name: 'given',
    kind: input.kind,
    pitchMm: pitchMm ?? 1,
    contacts: contacts!,
  }
  const stranger = Object.keys(wanted).find((n) => !fieldOf(socket).named.has(n))
  if (stranger) throw new BadInput(`marks.${stranger}`, `the field has no contact ${stranger}`)
  for (const [name, { touches }] of Object.entries(wanted)) {
    if (touches === name) throw new BadInput(`marks.${name}.touches`, `${name} cannot touch itself`)
    if (touches !== undefined && !fieldOf(socket).named.has(touches))
      throw new BadInput(`marks.${name}.touches`, `the field has no contact ${touches}`)
  }
  return socket
}

const oneField = (keys: Joi.SchemaMap) => Joi.object({ ...field, ...keys }).xor('table', 'contacts')

const evidence = Joi.object({
  rails: Joi.array()
    .items(
      Joi.object({
        rail: Joi.valid(...rails).required(),
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
  lostSense: Joi.array().items(Joi.string()).default([]),
  notLooked: Joi.number().integer().min(0).default(0),
  contacts: Joi.number().integer().min(0).default(0),
  cpuFitted: Joi.boolean().default(false),
  heatsink: Joi.boolean().default(false),
  unaccounted: Joi.array().items(Joi.string()).default([]),
  hazards: Joi.array().items(Joi.string()).default([]),
  chipVolts: Joi.number().allow(null).default(null),
  programmerVolts: Joi.number().allow(null).default(null),
  clipOn: Joi.boolean().default(false),
  supplyLimitA: Joi.number().greater(0).allow(null).default(null),
  provedUnderLimit: Joi.boolean().default(false),
  tripped: Joi.boolean().default(false),
})

const touched = Joi.object({
  groups: Joi.array()
    .items(Joi.valid(...functionGroups))
    .default([]),
  contacts: Joi.number().integer().min(0).default(0),
  firmware: Joi.boolean().default(false),
  parts: Joi.boolean().default(false),
  cell: Joi.boolean().default(false),
  intermittent: Joi.boolean().default(false),
  ownGraphics: Joi.boolean().default(true),
})

interface PlanInput extends FieldInput {
  readonly marks: Marks
  readonly school: School
  readonly left: Readonly<Record<string, string>>
  readonly strokes: Readonly<Record<string, number>>
}

/** Every computation that stands on the command line. */
export const operations: Readonly<Record<string, Operation>> = {
  'power.gate': operation<PowerEvidence>(
    'May this board be powered? The lamp and its reasons, from the evidence.',
    evidence,
    (e) => powerGate(e),
  ),

  'socket.check': operation<{ table: string }>(
    'Reads a contact table (CSV by path) and says what is wrong with it.',
    Joi.object({ table: Joi.string().required() }),
    ({ table }) => {
      const { contacts, pitchMm, findings } = readContactCsv(readFile(table, 'table').toString('utf8'))
      const count = (group: string) => contacts.filter((c) => c.group === group).length
      const groups = Object.fromEntries(
        functionGroups.map((g) => [g, count(g)] as const).filter(([, n]) => n > 0),
      )
      return { good: contacts.length > 0, contacts: contacts.length, pitchMm, groups, findings }
    },
  ),

  'socket.assess': operation<FieldInput & { marks: Marks; looked?: string[]; seed: number; draws: number }>(
    'Contact, shorts, lost functions and the odds that a board runs with these marks.',
    oneField({
      marks: marks.required(),
      looked: Joi.array().items(name),
      seed: Joi.number().integer().default(1),
      draws: Joi.number().integer().min(100).max(200_000).default(2000),
    }),
    ({ marks: seen, looked, seed, draws, ...rest }) =>
      assess(socketOf(rest, seen), seen, { seed, draws, ...(looked ? { looked: new Set(looked) } : {}) }),
  ),

  'socket.plan': operation<PlanInput>(
    'An order of straightening with technique, side, strokes and snap odds, and the outlook after it.',
    oneField({
      marks: marks.required(),
      school: Joi.valid('A', 'B').default('A'),
      left: Joi.object().pattern(name, Joi.string()).default({}),
      strokes: Joi.object().pattern(name, Joi.number().integer().min(0)).default({}),
    }),
    ({ marks: seen, school, left, strokes, ...rest }) => {
      const socket = socketOf(rest, seen)
      const planned = plan(socket, seen, school, left, strokes)
      const after = afterPlan(planned, seen)
      const then = assess(socket, after.marks, { mayBeGone: after.mayBeGone })
      const outlook = {
        runs: then.runs,
        runsLow: then.runsLow,
        runsHigh: then.runsHigh,
        nothingLost: then.whole,
      }
      return { ...planned, clusters: clusters(socket, seen).map((c) => c.say), after: outlook }
    },
  ),

  ...triageOperations,

  'proof.plan': operation<Touched>(
    'What has to be proved, from the functions that were damaged or touched.',
    touched,
    (t) => ({ tests: proofPlan(t) }),
  ),

  'job.verify': operation<{ zip: string }>(
    'Opens a job’s ZIP, checks every hash and line, and says what it holds.',
    Joi.object({ zip: Joi.string().required() }),
    ({ zip }) => {
      const { job, findings } = unpackJob(readFile(zip, 'zip'), sha256)
      if (!job) return { good: false, findings }
      const state = jobState(
        job.entries,
        job.socket?.contacts.map((c) => c.name),
      )
      const gate = powerGate(powerEvidence(state, job.socket))
      const last = state.baselines.at(-1)
      return {
        good: true,
        tag: job.tag,
        lines: job.entries.length,
        pictures: job.files.length,
        socket: job.socket?.name ?? null,
        stations: Object.fromEntries(stations.map((s) => [s, state.marks[s].mark])),
        gate: gate.lamp,
        reaches: last ? stageReached(last).say : null,
        outcome: state.handBack?.outcome ?? null,
        findings,
      }
    },
  ),
}
