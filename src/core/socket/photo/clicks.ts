import { fieldOf } from '../model/socket'
import type { Contact, Socket } from '../model/socket'
import type { Anchor } from './anchors'
import type { Point } from '../../photo/projection'
import { isDamage } from '../damage/mark'
import type { Marks } from '../damage/mark'

/** What part of the field a photo shows. */
export const parts = ['whole', 'far left', 'far right', 'near left', 'near right'] as const
export type Part = (typeof parts)[number]

/** A contact to click next, and about where its tip is in the photo once two are clicked. */
export interface NextClick {
  readonly contact: string
  readonly aboutPx: Point | null
}

export interface ClickQuestion {
  readonly part: Part
  readonly anchors: readonly Anchor[]
  readonly mirrored: boolean
  readonly widthPx: number
  readonly heightPx: number
}

/**
 * What to click next: sound contacts near the corners of what the photo shows, going round them. Before two are
 * clicked that is the part it is said to show; then what of a part lies within the picture by the clicks themselves.
 * The whole field is asked for by its corners to the end, so that clicks on a mirrored photo show as such.
 * @returns null once four corners are clicked
 */
export function nextToClick(socket: Socket, marks: Marks, asked: ClickQuestion): NextClick | null {
  const { part, anchors, mirrored, widthPx, heightPx } = asked
  const onPhoto = roughly(socket, anchors, mirrored)
  const sound = socket.contacts.filter((c) => !isDamage(marks[c.name]))
  const [xs, ys] = [sound.map((c) => c.xMm), sound.map((c) => c.yMm)]
  const [midX, midY] = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2]
  const margin = 0.04 * Math.min(widthPx, heightPx)
  const shown = sound.filter((c) => {
    if (part === 'whole') return true
    if (onPhoto) {
      const [x, y] = onPhoto([c.xMm, c.yMm])
      return x > margin && y > margin && x < widthPx - margin && y < heightPx - margin
    }
    return (
      (!part.endsWith('left') || c.xMm <= midX) &&
      (!part.endsWith('right') || c.xMm >= midX) &&
      (!part.startsWith('far') || c.yMm >= midY) &&
      (!part.startsWith('near') || c.yMm <= midY)
    )
  })
  const from = shown.length >= FEWEST_SHOWN ? shown : sound
  const corner = ([sx, sy]: Point) =>
    from.reduce((best, c) => (sx * c.xMm + sy * c.yMm > sx * best.xMm + sy * best.yMm ? c : best), from[0]!)
  const { named } = fieldOf(socket)
  // A contact clicked stands for the corner it is nearest to, and no corner is asked for twice.
  const free = firstCorner[part].map(corner).filter((c) => {
    const near = 0.3 * Math.hypot(span(from, 'xMm'), span(from, 'yMm'))
    return !anchors.some((a) => {
      const at = named.get(a.contact)
      return at !== undefined && Math.hypot(at.xMm - c.xMm, at.yMm - c.yMm) < near
    })
  })
  const spare = from.find((c) => !anchors.some((a) => a.contact === c.name))
  const next = free[0] ?? (anchors.length < 4 ? spare : undefined)
  return next ? { contact: next.name, aboutPx: onPhoto?.([next.xMm, next.yMm]) ?? null } : null
}

/** With fewer contacts in sight than this the clicks are taken to be wrong. */
const FEWEST_SHOWN = 12

const span = (contacts: readonly Contact[], axis: 'xMm' | 'yMm') => {
  const all = contacts.map((c) => c[axis])
  return Math.max(...all) - Math.min(...all)
}

const round: readonly Point[] = [
  [-1, 1],
  [1, 1],
  [1, -1],
  [-1, -1],
]
/** The corner of the field that a part photo shows comes first: it is found without counting. */
const firstCorner: Readonly<Record<Part, readonly Point[]>> = {
  whole: round,
  'far left': round,
  'far right': [...round.slice(1), ...round.slice(0, 1)],
  'near right': [...round.slice(2), ...round.slice(0, 2)],
  'near left': [...round.slice(3), ...round.slice(0, 3)],
}

/**
 * About where contacts are in the photo, from two clicks on: the similarity of least squares (turn, size and shift),
 * z ↦ a·z + b in complex numbers with y turned over, as pictures count it downwards.
 * Source: Horn (1987), in the plane. Leaves tilt and lens out, so it is about as good as the eye needs.
 * @returns null before two contacts of the field are clicked in two places
 */
export function roughly(
  socket: Socket,
  anchors: readonly Anchor[],
  mirrored: boolean,
): ((mm: Point) => Point) | null {
  const { named } = fieldOf(socket)
  const flat = ([x, y]: Point): Point => [mirrored ? -x : x, -y]
  const pairs = anchors.flatMap(({ contact, px }) => {
    const c = named.get(contact)
    return c ? [{ z: flat([c.xMm, c.yMm]), px }] : []
  })
  const mean = (of: (p: (typeof pairs)[number]) => number) =>
    pairs.reduce((sum, p) => sum + of(p), 0) / pairs.length
  const [zx, zy] = [mean((p) => p.z[0]), mean((p) => p.z[1])]
  const [px, py] = [mean((p) => p.px[0]), mean((p) => p.px[1])]
  let [re, im, size] = [0, 0, 0]
  for (const { z, px: at } of pairs) {
    const [u, v] = [z[0] - zx, z[1] - zy]
    re += u * (at[0] - px) + v * (at[1] - py)
    im += u * (at[1] - py) - v * (at[0] - px)
    size += u * u + v * v
  }
  if (pairs.length < 2 || size === 0 || (re === 0 && im === 0)) return null
  return (mm) => {
    const [u, v] = [flat(mm)[0] - zx, flat(mm)[1] - zy]
    return [px + (re * u - im * v) / size, py + (im * u + re * v) / size]
  }
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
