import { isDamage, usualHeightMm, usualLeanMm } from './mark'
import type { Mark, Marks } from './mark'
import { compass } from './open-side'
import { fieldOf } from '../model/socket'
import type { Contact, Socket } from '../model/socket'

/** Damaged contacts that lie together. */
export interface Cluster {
  readonly names: readonly string[]
  /** The one nearest to the middle. */
  readonly middle: string
  readonly shape: 'crater' | 'swath' | 'row' | 'patch' | 'stray'
  readonly say: string
  /** Left, top, right, bottom in socket mm. */
  readonly box: readonly [number, number, number, number]
}

const LINKS_PITCHES = 1.6

/**
 * Groups damaged contacts whose feet lie within 1.6 pitches of one another, largest first, and says what each looks
 * like: a crater (mostly low), a swath (dragged the same way), a row in line, a patch of mixed damage, or strays.
 */
export function clusters(socket: Socket, marks: Marks): Cluster[] {
  const { near } = fieldOf(socket)
  const open = new Map<number, Contact>()
  socket.contacts.forEach((c, i) => isDamage(marks[c.name]) && open.set(i, c))
  const found: Cluster[] = []
  for (const [seed] of [...open]) {
    if (!open.has(seed)) continue
    const members: Contact[] = []
    const queue = [seed]
    open.delete(seed)
    while (queue.length > 0) {
      const c = socket.contacts[queue.pop()!]!
      members.push(c)
      for (const i of near.within(c.xMm, c.yMm, socket.pitchMm * LINKS_PITCHES))
        if (open.delete(i)) queue.push(i)
    }
    found.push(describe(socket, marks, members))
  }
  return found.sort((a, b) => b.names.length - a.names.length || (a.middle < b.middle ? -1 : 1))
}

function describe(socket: Socket, marks: Marks, members: readonly Contact[]): Cluster {
  const xs = members.map((c) => c.xMm)
  const ys = members.map((c) => c.yMm)
  const box = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const
  const cx = mean(xs)
  const cy = mean(ys)
  const middle = members.reduce((best, c) =>
    Math.hypot(c.xMm - cx, c.yMm - cy) < Math.hypot(best.xMm - cx, best.yMm - cy) ? c : best,
  ).name
  const n = members.length
  const seen = members.map((c) => marks[c.name]!)
  const shape = shapeOf(seen, box, socket.pitchMm)
  const words: Record<Cluster['shape'], string> = {
    crater: `crater of ${n} at ${middle}`,
    swath: `swath of ${n} at ${middle}, leaning ${headingOf(seen)}`,
    row: `row of ${n} at ${middle}`,
    patch: `patch of ${n} at ${middle}`,
    stray: n === 1 ? middle : `${n} at ${middle}`,
  }
  return { names: members.map((c) => c.name), middle, shape, say: words[shape], box }
}

const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / values.length

function shapeOf(seen: readonly Mark[], box: Cluster['box'], pitchMm: number): Cluster['shape'] {
  if (seen.length < 4) return 'stray'
  if (seen.filter((m) => usualHeightMm(m) < 0).length >= seen.length * 0.6) return 'crater'
  const thin = Math.min(box[2] - box[0], box[3] - box[1]) < pitchMm * 0.6
  const drift = Math.hypot(...drag(seen))
  const total = mean(seen.map((m) => Math.hypot(...usualLeanMm(m))))
  if (thin) return 'row'
  return total > 0 && drift > 0.8 * total ? 'swath' : 'patch'
}

/** Mean lean of the marks, mm. */
const drag = (seen: readonly Mark[]): readonly [number, number] => [
  mean(seen.map((m) => usualLeanMm(m)[0])),
  mean(seen.map((m) => usualLeanMm(m)[1])),
]

function headingOf(seen: readonly Mark[]): string {
  const [x, y] = drag(seen)
  return compass[(Math.round(Math.atan2(y, x) / (Math.PI / 4)) + 8) % 8]!
}
