import { fromView, toView } from '../map/display-list'
import type { View } from '../map/display-list'
import { isDamage } from '../damage/mark'
import type { Marks } from '../damage/mark'
import { fieldOf } from './socket'
import type { Socket } from './socket'

/** A step as the eye sees it: right is +1 in x, down is +1 in y. */
export type Direction = 'left' | 'right' | 'up' | 'down'

/** One of eight directions as the eye sees them: each of x and y is −1, 0 or +1, right and down positive. */
export type Heading = readonly [x: -1 | 0 | 1, y: -1 | 0 | 1]
export const headingOf: Readonly<Record<Direction, Heading>> = {
  left: [-1, 0],
  right: [1, 0],
  up: [0, -1],
  down: [0, 1],
}

/** A heading as it is said: “right”, “up and left”. */
export const sayHeading = ([x, y]: Heading): string =>
  [y && (y < 0 ? 'up' : 'down'), x && (x < 0 ? 'left' : 'right')].filter(Boolean).join(' and ')

/** A heading on the screen as a direction on the socket, unit length. */
export function onSocket(view: View, [x, y]: Heading): readonly [number, number] {
  const long = Math.hypot(x, y) || 1
  return fromView(view, x / long, y / long)
}

/**
 * The contact next to this one in the view's direction: the nearest in line with it (half a pitch to either side), over
 * the empty middle if need be; with none in line, the nearest ahead within 45°; at the edge, the same one.
 */
export function stepFrom(socket: Socket, view: View, name: string, direction: Direction): string {
  const here = fieldOf(socket).named.get(name)
  if (!here) return socket.contacts[0]?.name ?? name
  const [hx, hy] = toView(view, here.xMm, here.yMm)
  const [ux, uy] = headingOf[direction]
  let best = name
  let bestCost = Infinity
  for (const c of socket.contacts) {
    const [x, y] = toView(view, c.xMm, c.yMm)
    const along = (x - hx) * ux + (y - hy) * uy
    const across = Math.abs((x - hx) * uy) + Math.abs((y - hy) * ux)
    if (along <= 1e-6) continue
    const inLine = across <= socket.pitchMm * 0.55
    if (!inLine && across > along + 1e-6) continue
    const cost = along + 2 * across + (inLine ? 0 : 1000)
    if (cost < bestCost - 1e-9) {
      best = c.name
      bestCost = cost
    }
  }
  return best
}

/** The contact whose foot is nearest to a place on the socket, or null beyond `reachMm`. */
export function contactAt(socket: Socket, xMm: number, yMm: number, reachMm: number): string | null {
  return socket.contacts[fieldOf(socket).near.nearest(xMm, yMm, reachMm)]?.name ?? null
}

/** Names of the contacts in the rectangle between two places in the view. */
export function swathBetween(
  socket: Socket,
  view: View,
  a: readonly [number, number],
  b: readonly [number, number],
): string[] {
  const [left, right] = [Math.min(a[0], b[0]) - 1e-6, Math.max(a[0], b[0]) + 1e-6]
  const [top, bottom] = [Math.min(a[1], b[1]) - 1e-6, Math.max(a[1], b[1]) + 1e-6]
  return socket.contacts
    .filter((c) => {
      const [x, y] = toView(view, c.xMm, c.yMm)
      return x >= left && x <= right && y >= top && y <= bottom
    })
    .map((c) => c.name)
}

/** The neighbours a contact can touch, nearest first, in eight directions; for cycling through them. */
export function neighboursOf(socket: Socket, name: string): string[] {
  const { named, near } = fieldOf(socket)
  const here = named.get(name)
  if (!here) return []
  return near
    .within(here.xMm, here.yMm, socket.pitchMm * 1.6)
    .map((i) => socket.contacts[i]!)
    .filter((c) => c !== here)
    .sort(
      (a, b) =>
        Math.hypot(a.xMm - here.xMm, a.yMm - here.yMm) - Math.hypot(b.xMm - here.xMm, b.yMm - here.yMm) ||
        (a.name < b.name ? -1 : 1),
    )
    .map((c) => c.name)
}

/** The eight directions round a contact as figures lie on a keypad, seen in the view. */
export const keypad = ['7', '8', '9', '4', '6', '1', '2', '3'] as const
export type KeypadKey = (typeof keypad)[number]

/** The nearest neighbour in each of the eight directions of the view; null where none stands. */
export function neighboursByKey(
  socket: Socket,
  view: View,
  name: string,
): Readonly<Record<KeypadKey, string | null>> {
  const found: Record<KeypadKey, string | null> = {
    '7': null,
    '8': null,
    '9': null,
    '4': null,
    '6': null,
    '1': null,
    '2': null,
    '3': null,
  }
  const around: readonly KeypadKey[] = ['6', '3', '2', '1', '4', '7', '8', '9'] // clockwise from the right, y down
  const { named } = fieldOf(socket)
  const here = named.get(name)
  if (!here) return found
  const [hx, hy] = toView(view, here.xMm, here.yMm)
  for (const other of neighboursOf(socket, name)) {
    const c = named.get(other)!
    const [x, y] = toView(view, c.xMm, c.yMm)
    const key = around[(Math.round(Math.atan2(y - hy, x - hx) / (Math.PI / 4)) + 8) % 8]!
    found[key] ??= other
  }
  return found
}

/** The next contact in reading order nobody has looked at, after this one and round again; null when none is left. */
export function nextUnseen(
  socket: Socket,
  looked: Readonly<Record<string, true>>,
  marks: Marks,
  after: string,
): string | null {
  const all = socket.contacts
  const from = all.findIndex((c) => c.name === after)
  for (let i = 1; i <= all.length; i++) {
    const c = all[(from + i) % all.length]!
    if (!looked[c.name] && !isDamage(marks[c.name])) return c.name
  }
  return null
}

/** The next `count` contacts along the view's row from this one, itself first. */
export function rowFrom(socket: Socket, view: View, name: string, count: number): string[] {
  const row = [name]
  while (row.length < count) {
    const next = stepFrom(socket, view, row.at(-1)!, 'right')
    if (row.includes(next)) break
    row.push(next)
  }
  return row
}
