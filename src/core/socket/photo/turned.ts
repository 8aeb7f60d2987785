import { BEAM_RUN_MM } from '../damage/short'
import { fieldOf } from '../model/socket'
import type { Socket } from '../model/socket'
import { corners } from './anchors'
import type { PhotoFault } from './anchors'
import { sample } from '../../photo/grey-image'
import type { PeakPlaces } from './peaks'
import { project, scaleAt, unproject } from '../../photo/projection'
import type { Point, Projection } from '../../photo/projection'
import { onPhoto, onPlane } from './work'
import type { Work } from './work'

/** A turn of the field on itself, about its middle. */
interface Turn {
  readonly say: string
  readonly of: (p: Point) => Point
}

const asNamed: Turn = { say: 'as named', of: (p) => p }
const turns: readonly Turn[] = [
  { say: 'turned by 90° to the left', of: ([x, y]) => [-y, x] },
  { say: 'turned by 180°', of: ([x, y]) => [-x, -y] },
  { say: 'turned by 90° to the right', of: ([x, y]) => [y, -x] },
  { say: 'mirrored left to right', of: ([x, y]) => [-x, y] },
  { say: 'mirrored near to far', of: ([x, y]) => [x, -y] },
  { say: 'mirrored along a diagonal', of: ([x, y]) => [y, x] },
  { say: 'mirrored along the other diagonal', of: ([x, y]) => [-y, -x] },
]

/** Directions told apart, and how much brighter the strip's must be than the next to be told, grey levels. */
const DIRECTIONS = 8
const TOLD = 3
/** Share of the contacts by which another turn must fit better to be believed, and within which two fit alike. */
const BETTER = 0.02
const ALIKE = 0.01
/** Share of the contacts that may have tips beside the table before it is another table. */
const BESIDE = 0.015
/** Share of the strips that must run as the table says, and of those that run otherwise alike to say so. */
const AS_TABLE = 0.35
const OTHERWISE = 0.5

export interface TurnAnswer {
  /** The clicks or the table are wrong: no map is made. */
  readonly fault: PhotoFault | null
  /** Other ways to lie that fit just as well: only a person who sees the pin-1 mark can tell. */
  readonly ask: readonly string[]
}

/**
 * Whether the field lies as its contacts were named. Every turn and mirror image of it is tried: tips where the table has
 * none, gaps where it has some, and the direction of the strips tell. A turn that fits clearly better, tips beside the
 * table, or strips that run otherwise than it says are refused; two that fit alike are asked about.
 * @param floor least strength of a tip
 */
export function liesAsNamed(work: Work, projection: Projection, grid: PeakPlaces, floor: number): TurnAnswer {
  const { socket } = work
  const middle = middleOf(socket)
  const ways = new Map<string, number | null>()
  /** Way of the strip at a tip, in eighths of a turn from the right, anticlockwise on the field; null when not told. */
  const wayAt = (at: Point, peak: number): number | null => {
    const key = String(peak)
    const known = ways.get(key)
    if (known !== undefined) return known
    const way = stripWay(work, projection, at)
    ways.set(key, way)
    return way
  }
  const fit = ({ of }: Turn) => {
    let hits = 0
    let told = 0
    let along = 0
    for (const c of socket.contacts) {
      const [tx, ty] = of([c.xMm - middle[0], c.yMm - middle[1]])
      const mm: Point = [middle[0] + tx, middle[1] + ty]
      const [x, y] = onPlane(work, project(projection, mm[0], mm[1]))
      const radius = (0.2 * socket.pitchMm * scaleAt(projection, mm[0], mm[1])) / work.factor
      const peak = grid.nearest(x, y, radius)
      if (peak < 0 || grid.peaks.strength[peak]! < floor) continue
      hits++
      if (socket.kind === 'pin-grid') continue
      const way = wayAt([grid.peaks.x[peak]!, grid.peaks.y[peak]!], peak)
      if (way === null) continue
      told++
      const angle = (c.beamDeg * Math.PI) / 180
      const [ux, uy] = of([Math.cos(angle), Math.sin(angle)])
      if (way === eighth(Math.atan2(uy, ux))) along++
    }
    return { hits, told, along, score: hits + along }
  }
  const n = socket.contacts.length
  const plain = fit(asNamed)
  const others = turns.map((turn) => ({ turn, ...fit(turn) }))
  const best = others.reduce((a, b) => (b.score > a.score ? b : a))
  if (best.score > plain.score + Math.max(6, BETTER * n))
    return {
      fault: {
        field: 'anchors',
        text: `the photo fits better with the field ${best.turn.say} (gaps and strips of ${best.score - plain.score} more contacts agree): the clicked contacts are named for another turn of it. Find the pin-1 mark and click again, or say that it is mirrored`,
      },
      ask: [],
    }
  const beside = tipsBeside(work, projection, grid, floor)
  if (beside > Math.max(8, BESIDE * n))
    return {
      fault: {
        field: 'socket',
        text: `${beside} tips stand where the table of ${socket.name} has no contact: it is the table of another socket, or columns of it are missing`,
      },
      ask: [],
    }
  const table = socket.kind === 'pin-grid' ? null : otherWay(socket, ways, plain)
  if (table) return { fault: { field: 'socket', text: table }, ask: [] }
  return {
    fault: null,
    ask: others
      .filter((o) => Math.abs(o.score - plain.score) <= Math.max(2, ALIKE * n))
      .map((o) => o.turn.say),
  }
}

const middleOf = (socket: Socket): Point => {
  const [a, , c] = corners(socket)
  return [(a![0] + c![0]) / 2, (a![1] + c![1]) / 2]
}

const eighth = (radians: number) =>
  ((Math.round((radians / (2 * Math.PI)) * DIRECTIONS) % DIRECTIONS) + DIRECTIONS) % DIRECTIONS

/** The way from foot to tip of the strip that ends at a tip of the working picture; null when no way stands out. */
function stripWay(work: Work, projection: Projection, at: Point): number | null {
  const px = onPhoto(work, at)
  const [x, y] = unproject(projection, px[0], px[1])
  let best = -1
  let [first, second] = [-Infinity, -Infinity]
  for (let k = 0; k < DIRECTIONS; k++) {
    const angle = (k / DIRECTIONS) * 2 * Math.PI
    let bright = 0
    // Down the strip, from beside the tip to short of the foot.
    for (const share of [0.45, 0.6, 0.75, 0.9]) {
      const s = share * BEAM_RUN_MM
      const [u, v] = onPlane(work, project(projection, x - s * Math.cos(angle), y - s * Math.sin(angle)))
      bright += sample(work.plane, u, v) / 4
    }
    if (bright > first) [second, first, best] = [first, bright, k]
    else if (bright > second) second = bright
  }
  return first - second < TOLD ? null : best
}

/** Tips inside the field that stand on its lattice where the table has no contact. */
function tipsBeside(work: Work, projection: Projection, grid: PeakPlaces, floor: number): number {
  const { socket } = work
  const { near } = fieldOf(socket)
  const [[left, far], , [right, close]] = corners(socket) as [Point, Point, Point]
  const pitch = socket.pitchMm
  const { peaks } = grid
  let beside = 0
  for (let i = 0; i < peaks.x.length; i++) {
    if (peaks.strength[i]! < 1.4 * floor) continue
    const px = onPhoto(work, [peaks.x[i]!, peaks.y[i]!])
    const [x, y] = unproject(projection, px[0], px[1])
    if (x < left - 0.3 * pitch || x > right + 0.3 * pitch || y > far + 0.3 * pitch || y < close - 0.3 * pitch)
      continue
    if (near.within(x, y, 0.5 * pitch).length > 0) continue
    const around = near.within(x, y, 3.2 * pitch).map((j) => socket.contacts[j]!)
    const onLattice = around.some((c) => {
      const [a, b] = [(x - c.xMm) / pitch, (y - c.yMm) / pitch]
      return Math.abs(a - Math.round(a)) < 0.14 && Math.abs(b - Math.round(b)) < 0.14
    })
    if (onLattice) beside++
  }
  return beside
}

/** What to say when most strips run alike, and otherwise than the table says; null when they do not. */
function otherWay(
  socket: Socket,
  ways: ReadonlyMap<string, number | null>,
  plain: { readonly told: number; readonly along: number },
): string | null {
  if (plain.told < 0.3 * socket.contacts.length || plain.along >= AS_TABLE * plain.told) return null
  const counted = new Int32Array(DIRECTIONS)
  for (const way of ways.values()) if (way !== null) counted[way]!++
  const most = counted.reduce((best, n, k) => (n > counted[best]! ? k : best), 0)
  const two = counted[most]! + counted[(most + DIRECTIONS / 2) % DIRECTIONS]!
  if (two < OTHERWISE * plain.told) return null
  const seen = (most * 360) / DIRECTIONS
  return `the strips in the photo run at ${seen}°${counted[(most + 4) % DIRECTIONS]! > 0.1 * two ? ` and ${(seen + 180) % 360}°` : ''}, the table of ${socket.name} says otherwise${socket.contacts.every((c) => c.beamDeg === 0) ? ' (0° everywhere: it has no beam_deg)' : ''}: set the beams in the library first`
}
