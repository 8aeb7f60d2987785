import { kindOfNet } from '../missing/pad'
import type { MapUnits } from './netlist'

export type PointKind = 'pad' | 'through' | 'via' | 'hole'
export type BoardSide = 'top' | 'bottom'

/** One place of a net on the board; x to the right, y up, seen from the top. */
export interface BoardPoint {
  /** Empty where it is connected to nothing. */
  readonly net: string
  /** Part and pin; empty for vias and holes. */
  readonly ref: string
  readonly pin: string
  readonly kind: PointKind
  readonly side: BoardSide | 'both'
  readonly xMm: number
  readonly yMm: number
  /** Zero where the file does not say. */
  readonly wMm: number
  readonly hMm: number
  readonly drillMm: number
  readonly plated: boolean
  /** It lies in the middle of its net, not at an end. */
  readonly middle: boolean
}

export interface BoardMap {
  readonly points: readonly BoardPoint[]
  readonly units: MapUnits
  /** Pads that are connected to nothing, each by itself. */
  readonly unconnected: number
}

/** What a placement list knows of a part. */
export interface Placement {
  readonly ref: string
  readonly xMm: number
  readonly yMm: number
  readonly turnDeg: number
  readonly side: BoardSide
  readonly value: string
  readonly body: string
}

/** A part as the map has it. */
export interface MapPart {
  readonly ref: string
  readonly side: BoardSide
  readonly xMm: number
  readonly yMm: number
  readonly pins: readonly BoardPoint[]
  /** By a placement list; empty where none says. */
  readonly value: string
  readonly body: string
}

/** A map with what is looked up in it. */
export interface IndexedMap {
  readonly map: BoardMap
  readonly parts: ReadonlyMap<string, MapPart>
  readonly nets: ReadonlyMap<string, readonly BoardPoint[]>
}

/** Gathers the parts and nets of a map; parts of a placement list that have no pin stand without. */
export function indexMap(map: BoardMap, placements: readonly Placement[] = []): IndexedMap {
  const pins = new Map<string, BoardPoint[]>()
  const nets = new Map<string, BoardPoint[]>()
  const put = (to: Map<string, BoardPoint[]>, key: string, point: BoardPoint) => {
    const known = to.get(key)
    if (known) known.push(point)
    else to.set(key, [point])
  }
  for (const point of map.points) {
    if (point.ref !== '') put(pins, point.ref, point)
    if (point.net !== '') put(nets, point.net, point)
  }
  const placed = new Map(placements.map((p) => [p.ref, p]))
  const parts = new Map<string, MapPart>()
  for (const ref of new Set([...pins.keys(), ...placed.keys()])) {
    const of = pins.get(ref) ?? []
    const known = placed.get(ref)
    const middle = (axis: 'xMm' | 'yMm') =>
      known?.[axis] ?? of.reduce((sum, p) => sum + p[axis], 0) / Math.max(1, of.length)
    parts.set(ref, {
      ref,
      side: known?.side ?? (of.some((p) => p.side === 'bottom') ? 'bottom' : 'top'),
      xMm: middle('xMm'),
      yMm: middle('yMm'),
      pins: of,
      value: known?.value ?? '',
      body: known?.body ?? '',
    })
  }
  return { map, parts, nets }
}

const flat = (text: string) => text.toLowerCase()

/** Parts and nets by name: what it is first, then what begins so, then what holds it. */
export function findInMap(
  { parts, nets }: IndexedMap,
  asked: string,
  most = 20,
): { readonly parts: readonly string[]; readonly nets: readonly string[] } {
  const text = flat(asked.trim())
  if (text === '') return { parts: [], nets: [] }
  const ranked = (names: Iterable<string>) =>
    [...names]
      .filter((name) => flat(name).includes(text))
      .map((name) => ({ name, rank: flat(name) === text ? 0 : flat(name).startsWith(text) ? 1 : 2 }))
      .sort((a, b) => a.rank - b.rank || a.name.localeCompare(b.name, 'en', { numeric: true }))
      .slice(0, most)
      .map((r) => r.name)
  return { parts: ranked(parts.keys()), nets: ranked(nets.keys()) }
}

/** Parts that a net joins, with the pin of each, in the order of their names. */
export function partsOnNet(
  { nets }: IndexedMap,
  net: string,
): readonly { readonly ref: string; readonly pin: string }[] {
  const seen = new Set<string>()
  return (nets.get(net) ?? [])
    .filter((p) => p.ref !== '' && !seen.has(`${p.ref} ${p.pin}`) && seen.add(`${p.ref} ${p.pin}`))
    .map(({ ref, pin }) => ({ ref, pin }))
    .sort(
      (a, b) =>
        a.ref.localeCompare(b.ref, 'en', { numeric: true }) ||
        a.pin.localeCompare(b.pin, 'en', { numeric: true }),
    )
}

/** The net of each pin of a part, in the order of the pins. */
export const netsOf = (
  { parts }: IndexedMap,
  ref: string,
): readonly { readonly pin: string; readonly net: string }[] =>
  (parts.get(ref)?.pins ?? [])
    .map(({ pin, net }) => ({ pin, net }))
    .sort((a, b) => a.pin.localeCompare(b.pin, 'en', { numeric: true }))

/** How far two boxes of pins are apart, mm; nought where they meet. */
function apart(a: MapPart, b: MapPart): number {
  const box = (part: MapPart) => {
    const xs = part.pins.length > 0 ? part.pins.map((p) => p.xMm) : [part.xMm]
    const ys = part.pins.length > 0 ? part.pins.map((p) => p.yMm) : [part.yMm]
    const least = (of: readonly number[]) => of.reduce((m, v) => Math.min(m, v), Infinity)
    const most = (of: readonly number[]) => of.reduce((m, v) => Math.max(m, v), -Infinity)
    return { left: least(xs), right: most(xs), low: least(ys), high: most(ys) }
  }
  const [p, q] = [box(a), box(b)]
  return Math.hypot(
    Math.max(0, p.left - q.right, q.left - p.right),
    Math.max(0, p.low - q.high, q.low - p.high),
  )
}

/** Parts that stand within so many millimetres of a part, nearest first, on its side or through the board. */
export function near(
  { parts }: IndexedMap,
  ref: string,
  mm: number,
): readonly { readonly ref: string; readonly mm: number; readonly side: BoardSide }[] {
  const of = parts.get(ref)
  if (!of) return []
  return [...parts.values()]
    .filter((p) => p.ref !== ref)
    .map((p) => ({ ref: p.ref, mm: Math.round(apart(of, p) * 1000) / 1000, side: p.side }))
    .filter((p) => p.mm <= mm)
    .sort((a, b) => a.mm - b.mm || a.ref.localeCompare(b.ref, 'en', { numeric: true }))
}

/** The socket on the map, and the net of each contact: the part most of whose pins bear the names of contacts. */
export function socketOnMap(
  { parts }: IndexedMap,
  contacts: readonly string[],
): { readonly ref: string; readonly nets: ReadonlyMap<string, string>; readonly unknown: number } | null {
  const wanted = new Set(contacts.map((c) => c.toUpperCase()))
  let best: { readonly part: MapPart; readonly count: number } | null = null
  for (const part of parts.values()) {
    if (part.pins.length < Math.min(4, contacts.length)) continue
    const count = part.pins.filter((p) => wanted.has(p.pin.toUpperCase())).length
    if (count > (best?.count ?? 0)) best = { part, count }
  }
  // Less than half of them: another socket, or another way of counting.
  if (!best || best.count < contacts.length / 2) return null
  const by = new Map(best.part.pins.map((p) => [p.pin.toUpperCase(), p.net]))
  const nets = new Map(
    contacts.flatMap((c) => (by.has(c.toUpperCase()) ? [[c, by.get(c.toUpperCase())!]] : [])),
  )
  return { ref: best.part.ref, nets, unknown: contacts.length - nets.size }
}

/** How near parts of one bus stand to be a row, mm. */
const ROW_MM = 12

/**
 * Parts with two pads on the same kind of place as another, of the same kind and size: on nets that differ by a figure only, or
 * in one row with it between the same two buses (`SPI_` and `PCH_`). A row counts for data lines alone: what clocks, resets,
 * chooses, feeds or sets a voltage beside it may well have another value.
 */
export function twinsOf({ parts }: IndexedMap, ref: string): readonly string[] {
  const part = parts.get(ref)
  if (part?.pins.length !== 2) return []
  const by = (of: (net: string) => string, p: MapPart) =>
    p.pins
      .map((pin) => of(pin.net))
      .sort()
      .join(' ')
  const figures = (net: string) => net.replace(/\d+/g, '#')
  const bus = (net: string) => /^.*_(?=[^_])/.exec(net)?.[0] ?? '?'
  const spread = (p: MapPart) => Math.hypot(p.pins[0]!.xMm - p.pins[1]!.xMm, p.pins[0]!.yMm - p.pins[1]!.yMm)
  const kind = ref.replace(/\d.*$/, '')
  const buses = by(bus, part)
  const carriesData = (p: MapPart) => p.pins.every((pin) => kindOfNet(pin.net) === 'data')
  const rows = !buses.includes('?') && carriesData(part)
  const inRow = (p: MapPart) =>
    rows &&
    by(bus, p) === buses &&
    carriesData(p) &&
    p.side === part.side &&
    Math.hypot(p.xMm - part.xMm, p.yMm - part.yMm) <= ROW_MM
  return [...parts.values()]
    .filter(
      (p) =>
        p.ref !== ref &&
        p.pins.length === 2 &&
        p.ref.replace(/\d.*$/, '') === kind &&
        Math.abs(spread(p) / spread(part) - 1) < 0.15 &&
        (by(figures, p) === by(figures, part) || inRow(p)),
    )
    .map((p) => p.ref)
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
}
