import type { FunctionGroup } from '../board/function-group'
import { assess } from './damage/assess'
import type { AssessOptions } from './damage/assess'
import type { Socket } from './model/socket'
import { currentPass } from './slice'
import type { SocketState } from './slice'

/** What is known of a field when its damage is weighed: what was looked at and how often, and what was straightened. */
export function seenOf(
  socket: SocketState,
  field: Socket,
): Required<Pick<AssessOptions, 'looked' | 'looks' | 'straightened'>> {
  const pass = currentPass(socket)
  return {
    looked: new Set(Object.keys(pass?.looked ?? {})),
    looks: socket.passes.filter((p) => Object.keys(p.looked).length >= 0.95 * field.contacts.length).length,
    straightened: [
      ...new Set(socket.strokes.filter((s) => s.result === 'there').map((s) => s.contact)),
    ].filter((name) => !pass?.marks[name]),
  }
}

const weighed = new WeakMap<SocketState, { field: Socket; lost: Partial<Record<FunctionGroup, number>> }>()

/** Chance of each function to be lost or strained as the field stands; once for each state of it. */
export function lostGroups(socket: SocketState, field: Socket): Partial<Record<FunctionGroup, number>> {
  const known = weighed.get(socket)
  if (known?.field === field) return known.lost
  const { groups } = assess(field, currentPass(socket)?.marks ?? {}, seenOf(socket, field))
  const lost = Object.fromEntries(groups.map((g) => [g.group, g.lost + g.strained]))
  weighed.set(socket, { field, lost })
  return lost
}
