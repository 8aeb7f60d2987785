import { railTold } from '@/core/board/slice'
import type { Bodies, Kind } from '@/core/slices'
import { swapParts } from '@/core/triage/slice'
import { strokeResults } from '@/core/socket/slice'
import { stations } from '@/core/board/station'
import { rails } from '@/core/board/rail'
import { outcomes } from '@/core/hand-back/slice'
import { kinds } from '@/core/job/job-state'
import { historyItems } from '@/core/board/history-item'
import Joi from 'joi'
import { CODE } from '@/core/triage/code'
import { benchTests } from '@/core/triage/bench-tests'
import { faultIds } from '@/core/triage/fault'
import { startOutcomes } from '@/core/triage/start-model'
import { damageKinds } from '@/core/socket/mark'
import { momentOf, oddText } from '@/core/plain-text'
import { lookHazards } from '@/core/board/hazard'
import { corners, drops } from '@/core/socket/seat-reading'

const text = (max = 2000) => Joi.string().trim().max(max)
const some = (max = 2000) => text(max).min(1).required()
/** The largest number of a line that the tape's column holds. */
const MOST_LINES = 2_147_483_647
const seq = Joi.number().integer().min(1).max(MOST_LINES).required()
const moment = Joi.string()
  .custom((iso: string, helpers) => (momentOf(iso) === null ? helpers.error('date.real') : iso))
  .messages({ 'date.real': '{{#label}} must be a moment of the calendar, like 2026-11-24T09:00:00Z' })
const contact = Joi.string().pattern(/^[A-Z]{1,3}\d{1,3}$/, 'a contact name like M31')
const money = Joi.number().integer().min(0).max(100_000_000).allow(null)
const mm = Joi.number().min(-5).max(5)
/** What spoke against a line and was asked about first. */
const despite = Joi.array().items(text(400)).min(1).max(60)
const sha = Joi.string().hex().length(64)
const codes = Joi.array().items(Joi.string().pattern(CODE, 'two hex figures')).max(500)
const amps = Joi.number().min(0).max(100).allow(null).required()
const minutes = Joi.number().integer().min(0).max(100_000).allow(null)

const ticket = Joi.object({
  boardModelId: text(60).allow(null),
  board: text(120).allow(''),
  revision: text(40).allow(''),
  serial: text(80).allow(''),
  socketId: text(60).allow(null),
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

const mark = Joi.object({
  kind: Joi.valid(...damageKinds).required(),
  leanMm: Joi.array().items(mm).length(2),
  heightMm: mm,
  touches: contact,
  twistDeg: Joi.number().min(-360).max(360),
  unsure: Joi.boolean(),
  maybe: Joi.valid(...damageKinds),
})

/** A test of the reasoner's list and one of its outcomes. */
const anOutcome = {
  test: Joi.valid(...benchTests.map((t) => t.id)).required(),
  outcome: Joi.string()
    .required()
    .custom((outcome: string, helpers) => {
      const { test } = helpers.state.ancestors[0] as { test: string }
      const outcomes = benchTests.find((t) => t.id === test)?.outcomes ?? []
      return outcomes.includes(outcome) ? outcome : helpers.error('any.only', { valids: outcomes })
    }),
}

/** Checked once, at each edge: route handlers, imports, the command line. */
const bodies: Record<Kind, Joi.ObjectSchema> = {
  ticket: Joi.object({ set: ticket.required() }),
  claim: Joi.object({ text: some() }),
  'claim weighed': Joi.object({
    claim: seq,
    ...anOutcome,
    reliability: Joi.number().min(0).max(1).required(),
  }),
  'claim checked': Joi.object({
    claim: seq,
    verdict: Joi.valid('holds', 'wrong', 'cannot tell').required(),
    how: text().allow('').required(),
  }),
  consent: Joi.object({
    risks: Joi.array().items(text(400)).required(),
    limitMinor: money.required(),
    signature: sha.allow(null).required(),
    how: text(120).allow('').required(),
  }),
  offer: Joi.object({ text: some(), limitMinor: money.required(), minutes: minutes.required() }),
  'offer answered': Joi.object({
    offer: seq,
    approved: Joi.boolean().required(),
    how: text(300).allow('').required(),
  }),
  photo: Joi.object({
    file: sha.required(),
    name: text(200).allow('').required(),
    type: text(40).required(),
    bytes: Joi.number().integer().min(0).required(),
    caption: text(300).allow('').required(),
  }),
  note: Joi.object({ text: some(4000) }),
  decision: Joi.object({ text: some(4000) }),
  rail: Joi.object({
    rail: Joi.valid(...rails).required(),
    ohms: Joi.number().min(0).max(1e9).allow(null).required(),
    is: Joi.when('ohms', { is: null, then: Joi.valid(...railTold).required(), otherwise: Joi.forbidden() }),
    cpu: Joi.when('ohms', {
      is: null,
      then: Joi.valid('in', 'out', null).required(),
      otherwise: Joi.valid('in', 'out').required(),
    }),
  }),
  volts: Joi.object({
    rail: Joi.valid(...rails).required(),
    volts: Joi.number().min(-60).max(60).allow(null).required(),
    is: Joi.when('volts', {
      is: null,
      then: Joi.valid('missing', 'there').required(),
      otherwise: Joi.forbidden(),
    }),
  }),
  cell: Joi.object({
    volts: Joi.number().min(0).max(5).allow(null).required(),
    is: Joi.when('volts', {
      is: null,
      then: Joi.valid('low', 'good').required(),
      otherwise: Joi.forbidden(),
    }),
    where: Joi.valid('by itself', 'at the board'),
    isNew: Joi.boolean(),
  }),
  codes: Joi.object({
    codes: codes.required(),
    atS: Joi.array()
      .items(Joi.number().min(0).max(86_400))
      .length(Joi.ref('codes.length'))
      .sort({ order: 'ascending' }),
    watchedS: Joi.number().min(0).max(86_400),
  }),
  current: Joi.object({
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
  swap: Joi.object({
    what: Joi.valid(...swapParts).required(),
    part: some(60),
    place: some(60),
    knownGood: Joi.boolean().required(),
    outcome: Joi.valid(...startOutcomes).required(),
    listed: Joi.valid('yes', 'no', 'not known'),
  }),
  runs: Joi.object({
    ratedMTs: Joi.number().integer().min(100).max(20_000).allow(null).required(),
    seenMTs: Joi.number().integer().min(100).max(20_000).allow(null).required(),
    startS: Joi.number().min(0).max(3600).allow(null).required(),
    settingsKept: Joi.boolean().allow(null).required(),
  }),
  baseline: Joi.object({
    fans: Joi.valid('off', 'twitch', 'on', 'not noted').required(),
    current: Joi.valid('none', 'standby', 'steady', 'cycling', 'trips', 'not noted').required(),
    amps: Joi.number().min(0).max(100).allow(null).required(),
    lamp: Joi.valid('none', 'cpu', 'memory', 'graphics', 'boot', 'not noted').required(),
    beeps: text(100).allow('').required(),
    cpuHeat: Joi.valid('cold', 'warm', 'hot', 'not noted').required(),
    codes: codes.required(),
    picture: Joi.valid('none', 'maker screen', 'system loads', 'not noted').required(),
  }),
  fitted: Joi.object({
    cpu: text(120).allow(null),
    heatsink: Joi.boolean(),
    modules: Joi.array().items(text(80)).max(16),
    card: text(120).allow(null),
  }).min(1),
  supply: Joi.object({ limitA: Joi.number().greater(0).max(60).allow(null).required() }),
  look: Joi.object({
    what: some(120),
    seen: some(500),
    clear: Joi.boolean().required(),
    hazard: Joi.when('clear', {
      is: true,
      then: Joi.valid('harmless'),
      otherwise: Joi.valid(...lookHazards),
    }),
    test: Joi.valid('outside', 'round the chip'),
  }),
  pass: Joi.object({ name: some(80) }),
  looked: Joi.object({
    contacts: Joi.alternatives(Joi.valid('all'), Joi.array().items(contact).min(1).max(6500)).required(),
    photo: text(200),
  }),
  mark: Joi.object({
    contacts: Joi.array().items(contact).min(1).max(6500).required(),
    mark: mark.required(),
  }),
  stroke: Joi.object({
    contact: contact.required(),
    technique: some(40),
    tool: some(60),
    from: text(20).allow(null).required(),
    strokes: Joi.number().integer().min(1).max(50).required(),
    result: Joi.valid(...strokeResults).required(),
    damage: Joi.valid(...damageKinds),
    touches: contact,
    predictedSnaps: Joi.number().min(0).max(1).allow(null).required(),
    snapFactor: Joi.number().greater(0).max(1000),
    light: text(120),
    magnification: text(40),
  }),
  left: Joi.object({ contact: contact.required(), why: some(300) }),
  replaced: Joi.object({
    contact: contact.required(),
    how: Joi.valid('stub raise', 'transplant', 'whole socket').required(),
    donor: text(80),
    holds: Joi.boolean().required(),
    pulledOut: Joi.array().items(contact).max(40).required(),
  }),
  school: Joi.object({ school: Joi.valid('A', 'B').required() }),
  seat: Joi.object({
    cpu: some(120),
    drop: Joi.valid(...drops).required(),
    heatsink: Joi.boolean(),
    corner: Joi.valid(...corners),
    turned: Joi.boolean(),
  }),
  missing: Joi.object({ what: some(200), from: some(120) }),
  accounted: Joi.object({
    item: Joi.alternatives(
      Joi.number().integer().min(1).strict(),
      Joi.string().pattern(/^[1-9]\d{0,8}\/\d{1,4}$/, 'an item of a line, like 12/0'),
    ).required(),
    where: some(200),
  }),
  firmware: Joi.object({
    version: text(60),
    chip: text(60),
    chipVolts: Joi.number().min(0.5).max(12),
    programmerVolts: Joi.number().min(0.5).max(12),
    clipOn: Joi.boolean(),
    did: text(500),
  }).min(1),
  part: Joi.object({
    ref: some(60),
    did: Joi.valid('found missing', 'found damaged', 'taken off', 'fitted', 'measured').required(),
    value: text(60),
    side: Joi.valid('top', 'bottom'),
    text: text(300),
  }),
  trial: Joi.object(anOutcome),
  mended: Joi.object({ fault: Joi.valid(...faultIds).required() }),
  proof: Joi.object({
    test: some(60),
    result: Joi.valid('pass', 'fail', 'cannot run here').required(),
    reading: text(300).allow('').required(),
    despite,
  }),
  advice: Joi.object({ text: some(500) }),
  'hand-back': Joi.object({
    outcome: Joi.valid(...outcomes).required(),
    priceMinor: money.required(),
    text: text().allow('').required(),
    despite,
  }),
  'late outcome': Joi.object({ text: some(500), holds: Joi.boolean().required() }),
  clock: Joi.object({ run: Joi.valid(...stations, null).required() }),
  station: Joi.object({
    station: Joi.valid(...stations).required(),
    mark: Joi.valid('settled', 'passed over', 'open').required(),
    why: text(300).allow('').required(),
  }),
  strike: Joi.object({ why: some(300) }),
}

const envelope = Joi.object({
  id: Joi.string().uuid().required(),
  kind: Joi.valid(...kinds).required(),
  strikes: Joi.number().integer().min(1).max(MOST_LINES).allow(null).required(),
  at: moment.required(),
  body: Joi.object().required(),
})

export interface Invalid {
  readonly field: string
  readonly text: string
}

/** Joi's finding as one sentence that names the field and what it should be. */
export function firstFault(error: Joi.ValidationError): Invalid {
  const detail = error.details[0]!
  return { field: detail.path.join('.') || 'body', text: detail.message.replaceAll('"', '') }
}

type Checked<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly fault: Invalid }

export interface CheckedEntry {
  readonly id: string
  readonly kind: Kind
  readonly strikes: number | null
  readonly at: string
  readonly body: Bodies[Kind]
}

/** An entry from outside, checked against the schema of its kind. */
export function checkEntry(raw: unknown, keepUnknown = false): Checked<CheckedEntry> {
  const odd = oddText(raw)
  if (odd !== null)
    return {
      ok: false,
      fault: { field: odd, text: 'it holds a character that can not be kept; type it anew' },
    }
  const outer = envelope.validate(raw, { allowUnknown: keepUnknown, convert: false })
  if (outer.error) return { ok: false, fault: firstFault(outer.error) }
  const value = outer.value as CheckedEntry
  const inner = bodies[value.kind].validate(value.body, { convert: true })
  if (inner.error) return { ok: false, fault: firstFault(inner.error) }
  if (value.kind === 'strike' && value.strikes === null)
    return { ok: false, fault: { field: 'strikes', text: 'a strike names the line it strikes' } }
  return { ok: true, value: { ...value, body: inner.value as Bodies[Kind] } }
}

/** A request to write on the tape: an entry and the last line its writer had seen. */
export function checkNewEntry(raw: unknown): Checked<CheckedEntry & { readonly basis: number }> {
  const { basis, ...rest } = (raw ?? {}) as Record<string, unknown>
  const outer = Joi.number().integer().min(0).max(MOST_LINES).required().label('basis').validate(basis)
  if (outer.error)
    return { ok: false, fault: { field: 'basis', text: outer.error.details[0]!.message.replaceAll('"', '') } }
  const entry = checkEntry(rest)
  return entry.ok ? { ok: true, value: { ...entry.value, basis: outer.value as number } } : entry
}
