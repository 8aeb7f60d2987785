import { isDamage, usualHeightMm, usualLeanMm } from './mark'
import type { Mark, Marks } from './mark'
import { contactCapsule, segmentDistance } from './short'
import { fieldOf } from '../model/socket'
import type { Socket } from '../model/socket'

/**
 * Who lies across whom: from a contact to the damaged ones that cannot be reached before it is out of the way.
 * Seen (a mark that touches or lies over the other) or reckoned: the beam's run passes, in plan, within 0.3 pitch of
 * the other's foot. Of two that lie across each other the one that is more displaced goes first.
 */
export function liesAcross(socket: Socket, marks: Marks): ReadonlyMap<string, readonly string[]> {
  const { named, near } = fieldOf(socket)
  const found = new Map<string, string[]>()
  for (const [name, mark] of Object.entries(marks)) {
    const contact = named.get(name)
    if (!contact || !isDamage(mark)) continue
    const capsule = contactCapsule(
      contact,
      mark,
      mark.touches ? named.get(mark.touches) : undefined,
      socket.kind,
    )
    if (!capsule) continue
    const from = [capsule.from[0], capsule.from[1], 0] as const
    const to = [capsule.to[0], capsule.to[1], 0] as const
    const under = near
      .within(contact.xMm, contact.yMm, socket.pitchMm * 2.2)
      .map((i) => socket.contacts[i]!)
      .filter((other) => {
        if (other === contact || !isDamage(marks[other.name])) return false
        if (mark.touches === other.name && (mark.kind === 'folded' || mark.kind === 'touching')) return true
        const foot = [other.xMm, other.yMm, 0] as const
        return segmentDistance(from, to, foot, foot) < socket.pitchMm * 0.3
      })
      .map((other) => other.name)
    if (under.length > 0) found.set(name, under)
  }
  const first = (a: string, b: string) => {
    const more = severity(marks[a]!) - severity(marks[b]!)
    return more > 0 || (more === 0 && a < b)
  }
  return new Map(
    [...found]
      .map(
        ([name, unders]) =>
          [name, unders.filter((under) => !found.get(under)?.includes(name) || first(name, under))] as const,
      )
      .filter(([, unders]) => unders.length > 0),
  )
}

/** How far out of place a contact is, for telling which of two goes first; folded above touching above the rest. */
export const severity = (mark: Mark): number =>
  (mark.kind === 'folded' ? 10 : mark.kind === 'touching' ? 5 : 0) +
  Math.hypot(...usualLeanMm(mark)) +
  Math.abs(usualHeightMm(mark))
