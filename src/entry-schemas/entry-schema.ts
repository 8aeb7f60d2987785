import Joi from 'joi'
import { oddText } from '@/core/tables/plain-text'
import { kinds } from '@/core/job/job-state'
import type { Bodies, Kind } from '@/core/slices'
import { boardSchemas } from './board'
import { workSchemas } from './work'
import { intakeSchemas } from './intake'
import { triageSchemas } from './triage'
import { socketSchemas } from './socket'
import { firmwareSchemas } from './firmware'
import { partsSchemas } from './parts'
import { proofSchemas } from './proof'
import { handBackSchemas } from './hand-back'
import { moment, MOST_LINES } from './field'
import type { Schemas } from './field'

/** Checked once, at each edge: route handlers, imports, the command line. */
export const entryBodies: Schemas<Bodies> = {
  ...boardSchemas,
  ...workSchemas,
  ...intakeSchemas,
  ...triageSchemas,
  ...socketSchemas,
  ...firmwareSchemas,
  ...partsSchemas,
  ...proofSchemas,
  ...handBackSchemas,
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
  const inner = entryBodies[value.kind].validate(value.body, { convert: true })
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
