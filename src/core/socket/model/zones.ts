import { fieldOf } from './socket'
import type { Socket } from './socket'
import type { FunctionGroup } from '../../board/function-group'

/** The broad regions that tint the map. */
export type Zone = 'power' | 'memory' | 'lanes' | 'control'

function zoneOf(group: FunctionGroup): Zone | null {
  if (group === 'memory A' || group === 'memory B') return 'memory'
  if (group === 'card lanes' || group === 'storage lanes' || group === 'display') return 'lanes'
  if (group.endsWith('power')) return 'power'
  if (group === 'clock' || group === 'reset' || group === 'sense' || group === 'control') return 'control'
  return null
}

const kept = new WeakMap<Socket, readonly (Zone | null)[]>()

/** The zone of each contact, in order; a ground or reserved one belongs to whatever three in ten of its neighbours are. */
export function zonesOf(socket: Socket): readonly (Zone | null)[] {
  const known = kept.get(socket)
  if (known) return known
  const { near } = fieldOf(socket)
  const own = socket.contacts.map((c) => zoneOf(c.group))
  const zones = socket.contacts.map((c, i) => {
    if (own[i]) return own[i]
    const around = near.within(c.xMm, c.yMm, socket.pitchMm * 1.5)
    const votes = new Map<Zone, number>()
    for (const k of around) if (own[k]) votes.set(own[k], (votes.get(own[k]) ?? 0) + 1)
    const most = [...votes].sort((a, b) => b[1] - a[1])[0]
    return most && most[1] >= around.length * 0.3 ? most[0] : null
  })
  kept.set(socket, zones)
  return zones
}
