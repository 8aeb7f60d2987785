import { usualLeanMm } from './mark'
import type { Marks } from './mark'
import { segmentDistance } from './short'
import { fieldOf } from '../model/socket'
import type { Contact, Socket } from '../model/socket'

/** Seen from above with the far edge north. */
export const compass = [
  'east',
  'north-east',
  'north',
  'north-west',
  'west',
  'south-west',
  'south',
  'south-east',
] as const
export type Compass = (typeof compass)[number]

/** The way a lean goes, by the compass of the field; null where it stands upright. */
export const leansTo = ([x, y]: readonly [number, number]): Compass | null =>
  Math.hypot(x, y) < 0.005 ? null : compass[(Math.round(Math.atan2(y, x) / (Math.PI / 4)) + 8) % 8]!

/** Width of a needle's corridor and how far out it needs room, mm (bench default). */
const TOOL_RADIUS_MM = 0.15
const TOOL_REACH_MM = 1.6

export interface OpenSide {
  readonly side: Compass
  /** Raised contacts that stand in the corridor of that side all the same. */
  readonly blockedBy: readonly string[]
}

/**
 * The side a tool should come from to push towards `away`: of eight, the cheapest.
 * Cost of a side: 1 − cos of its angle from the ideal one, + 0.35 for each contact whose tip stands in the corridor,
 * 0.9 if that one is high or folded. With nothing to push back, the needle goes under the arch from where the tip points.
 */
export function openSide(
  socket: Socket,
  contact: Contact,
  away: readonly [number, number],
  marks: Marks,
): OpenSide {
  const size = Math.hypot(...away)
  const beam = (contact.beamDeg * Math.PI) / 180
  const ideal = size > 0.004 ? [-away[0] / size, -away[1] / size] : [Math.cos(beam), Math.sin(beam)]
  const around = fieldOf(socket)
    .near.within(contact.xMm, contact.yMm, TOOL_REACH_MM + socket.pitchMm)
    .map((i) => socket.contacts[i]!)
    .filter((other) => other !== contact && marks[other.name]?.kind !== 'snapped')
  let best: OpenSide = { side: 'east', blockedBy: [] }
  let bestCost = Infinity
  compass.forEach((side, direction) => {
    const ux = Math.cos((direction * Math.PI) / 4)
    const uy = Math.sin((direction * Math.PI) / 4)
    const from = [contact.xMm, contact.yMm, 0] as const
    const out = [contact.xMm + ux * TOOL_REACH_MM, contact.yMm + uy * TOOL_REACH_MM, 0] as const
    const blockedBy: string[] = []
    let cost = 1 - (ux * ideal[0]! + uy * ideal[1]!)
    for (const other of around) {
      const mark = marks[other.name]
      const [dx, dy] = mark ? usualLeanMm(mark) : [0, 0]
      const at = [other.xMm + dx, other.yMm + dy, 0] as const
      if (segmentDistance(from, out, at, at) - TOOL_RADIUS_MM - 0.1 >= 0) continue
      const raised = mark?.kind === 'high' || mark?.kind === 'folded'
      cost += raised ? 0.9 : 0.35
      if (raised) blockedBy.push(other.name)
    }
    if (cost < bestCost - 1e-9) {
      best = { side, blockedBy }
      bestCost = cost
    }
  })
  return best
}
