import Joi from 'joi'
import { damageKinds } from '@/core/socket/damage/mark'
import type { Marks } from '@/core/socket/damage/mark'
import { fieldOf, trusts } from '@/core/socket/model/socket'
import { functionGroups } from '@/core/board/function-group'
import type { Socket } from '@/core/socket/model/socket'
import { readContactCsv } from '@/tables/contact-csv'
import { BadInput, readFile } from './operation'

export const name = Joi.string().pattern(/^[A-Z]{1,3}\d{1,3}$/)
const mm = Joi.number().min(-5).max(5)
export const marks = Joi.object().pattern(
  name,
  Joi.object({
    kind: Joi.valid(...damageKinds).required(),
    leanMm: Joi.array().items(mm).length(2),
    heightMm: mm,
    touches: name,
    twistDeg: Joi.number().min(-360).max(360),
    unsure: Joi.boolean(),
    maybe: Joi.valid(...damageKinds),
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
export interface FieldInput {
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

/** @throws BadInput for a table that cannot be read or a mark on a contact that is not there */
export function socketOf(input: FieldInput, wanted: Marks = {}): Socket {
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

/** The same where a field need not be given. */
export const optionalField = (keys: Joi.SchemaMap) =>
  Joi.object({ ...field, ...keys }).oxor('table', 'contacts')

export const oneField = (keys: Joi.SchemaMap) => Joi.object({ ...field, ...keys }).xor('table', 'contacts')
