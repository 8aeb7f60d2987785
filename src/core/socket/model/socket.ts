import { Places } from '../../maths/places'
import type { FunctionGroup } from '../../board/function-group'

export type SocketKind = 'land-grid' | 'pin-grid'

/** How far a function table may be believed. */
export const trusts = ['published', 'shared', 'region', 'none'] as const
export type Trust = (typeof trusts)[number]

/** Chance that a table of this trust names the right function for a contact (bench default). */
export const trustOdds: Readonly<Record<Trust, number>> = {
  published: 0.99,
  shared: 0.92,
  region: 0.6,
  none: 0,
}

/** One contact, seen from above: x right, y away from the operator, mm from the socket's centre. */
export interface Contact {
  readonly name: string
  readonly xMm: number
  readonly yMm: number
  readonly group: FunctionGroup
  readonly net: string
  /** Direction from foot to tip, degrees anticlockwise from +x; without meaning for a pin. */
  readonly beamDeg: number
  readonly trust: Trust
}

export interface Socket {
  readonly id: string
  readonly name: string
  readonly kind: SocketKind
  readonly pitchMm: number
  readonly contacts: readonly Contact[]
}

/** The CPU's underside is the mirror image of the field: the one place where x changes sign. */
export function underside<T extends { readonly xMm: number }>(point: T): T {
  return { ...point, xMm: -point.xMm }
}

/** Largest field the library takes. */
export const MAX_CONTACTS = 6500

/** A socket's contacts by name and by place. */
export interface Field {
  readonly named: ReadonlyMap<string, Contact>
  readonly near: Places
  /** How many contacts each group has. */
  readonly totals: ReadonlyMap<FunctionGroup, number>
}

// A socket never changes, so what is found in it may be kept as long as the socket itself.
const fields = new WeakMap<Socket, Field>()

/** The socket's indexes, made once. */
export function fieldOf(socket: Socket): Field {
  const known = fields.get(socket)
  if (known) return known
  const totals = new Map<FunctionGroup, number>()
  for (const c of socket.contacts) totals.set(c.group, (totals.get(c.group) ?? 0) + 1)
  const field: Field = {
    named: new Map(socket.contacts.map((c) => [c.name, c])),
    near: new Places(
      socket.contacts.map((c) => c.xMm),
      socket.contacts.map((c) => c.yMm),
    ),
    totals,
  }
  fields.set(socket, field)
  return field
}

/** A sentence if one of these names is no contact of the socket, else null. */
export function unknownContact(socket: Socket, names: readonly string[]): string | null {
  const { named } = fieldOf(socket)
  const stranger = names.find((name) => !named.has(name))
  if (stranger === undefined) return null
  const first = socket.contacts[0]!.name
  const last = socket.contacts.at(-1)!.name
  return `${socket.name} has no contact ${stranger}; they run from ${first} to ${last}`
}
