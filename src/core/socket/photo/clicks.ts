import { fieldOf } from '../socket'
import type { Socket } from '../socket'
import { isDamage } from '../mark'
import type { Marks } from '../mark'

/** The four contacts to click first: the undamaged ones nearest to the corners of the field, going round. */
export function contactsToClick(socket: Socket, marks: Marks): readonly string[] {
  const sound = socket.contacts.filter((c) => !isDamage(marks[c.name]))
  const corner = (sx: number, sy: number) =>
    sound.reduce((best, c) => (sx * c.xMm + sy * c.yMm > sx * best.xMm + sy * best.yMm ? c : best), sound[0]!)
  return [
    ...new Set([corner(-1, 1), corner(1, 1), corner(1, -1), corner(-1, -1)].map((c) => c?.name ?? '')),
  ].filter(Boolean)
}

/** Where a contact is, as one finds it: “far row, 3rd from the left”. */
export function whereIs(socket: Socket, name: string): string {
  const c = fieldOf(socket).named.get(name)
  if (!c) return 'no such contact'
  const row = socket.contacts.filter((o) => Math.abs(o.yMm - c.yMm) < 0.01 * socket.pitchMm)
  const farther = new Set(socket.contacts.filter((o) => o.yMm > c.yMm + 0.01).map((o) => o.yMm.toFixed(2)))
    .size
  const nearer = new Set(socket.contacts.filter((o) => o.yMm < c.yMm - 0.01).map((o) => o.yMm.toFixed(2)))
    .size
  const left = row.filter((o) => o.xMm < c.xMm - 1e-6).length
  const right = row.filter((o) => o.xMm > c.xMm + 1e-6).length
  const rowSaid =
    farther <= nearer
      ? nth(farther, 'far row', 'row from the far side')
      : nth(nearer, 'near row', 'row from the near side')
  const place =
    left <= right ? nth(left, 'leftmost', 'from the left') : nth(right, 'rightmost', 'from the right')
  return `${rowSaid}, ${place}`
}

const nth = (before: number, first: string, other: string) =>
  before === 0
    ? first
    : `${before + 1}${['th', 'st', 'nd', 'rd'][(before + 1) % 10 > 3 || Math.floor((before + 1) / 10) === 1 ? 0 : (before + 1) % 10]} ${other}`
