import { isDamage, usualLeanMm } from '../damage/mark'
import type { Mark, Marks } from '../damage/mark'
import type { Pass } from '../damage/pass'
import { fieldOf } from '../model/socket'
import { zonesOf } from '../model/zones'
import type { Zone } from '../model/zones'
import type { Contact, Socket } from '../model/socket'

/** How the field is turned to match the eyepiece, and how far leans are exaggerated. */
export interface View {
  readonly quarterTurns: 0 | 1 | 2 | 3
  readonly mirrored: boolean
  readonly exaggeration: number
}

export const plainView: View = { quarterTurns: 0, mirrored: false, exaggeration: 2 }

/** What a path of the list is, so that each drawer gives it its own ink. */
export const inks = [
  'zone power',
  'zone memory',
  'zone lanes',
  'zone control',
  'pattern',
  'untrusted',
  'healthy',
  'unseen',
  'sound',
  'tie',
  'stroke',
  'head',
  'ring',
  'danger stroke',
  'danger head',
  'pin 1',
] as const
export type Ink = (typeof inks)[number]

/** Inks of contacts that are not marked. */
export type Dot = 'healthy' | 'unseen' | 'sound'

/** Middles of dots in the view's mm, x and y in turn, and their radius. */
export interface Dots {
  readonly at: Float64Array
  readonly radiusMm: number
}

/** All shapes of one ink as one SVG path, mm in the view's orientation, y downwards. */
export interface InkedPath {
  readonly ink: Ink
  readonly d: string
}

export interface DisplayList {
  /** All of it, in the order in which it is put down; written out when it is asked for. */
  readonly paths: readonly InkedPath[]
  /** What does not change with the marks: the same array as long as socket and view are turned the same. */
  readonly ground: readonly InkedPath[]
  /** What is marked. */
  readonly marked: readonly InkedPath[]
  /** Contacts that are not marked: a canvas draws them faster by their places. */
  readonly dots: Readonly<Record<Dot, Dots>>
  /** Bounds: left, top, width, height in mm. */
  readonly box: readonly [number, number, number, number]
}

/** From socket mm (y away from the operator) to the view's mm (y down): mirror first, then turn clockwise. */
export function toView(view: View, xMm: number, yMm: number): readonly [number, number] {
  let x = view.mirrored ? -xMm : xMm
  let y = -yMm
  for (let i = 0; i < view.quarterTurns; i++) [x, y] = [-y, x]
  return [x, y]
}

/** The inverse of `toView`. */
export function fromView(view: View, vx: number, vy: number): readonly [number, number] {
  let x = vx
  let y = vy
  for (let i = 0; i < view.quarterTurns; i++) [x, y] = [y, -x]
  return [view.mirrored ? -x : x, -y]
}

/** What of a field does not change with its marks: regions, the pin-1 mark, each contact's dot in both its forms. */
interface Ground {
  readonly inked: readonly InkedPath[]
  readonly places: readonly (readonly [number, number])[]
  readonly box: DisplayList['box']
}

const grounds = new WeakMap<Socket, Map<string, Ground>>()

const blank = () => Object.fromEntries(inks.map((ink) => [ink, []])) as unknown as Record<Ink, string[]>

function groundOf(socket: Socket, view: View): Ground {
  const key = `${view.quarterTurns} ${view.mirrored}`
  const kept = grounds.get(socket) ?? new Map<string, Ground>()
  grounds.set(socket, kept)
  const known = kept.get(key)
  if (known) return known
  const d = blank()
  const p = socket.pitchMm
  drawZones(socket, view, d)
  const places = socket.contacts.map((c) => toView(view, c.xMm, c.yMm))
  const xs = places.map(([x]) => x)
  const ys = places.map(([, y]) => y)
  const margin = p * 1.2
  const [left, top, right, bottom] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]
  // Pin 1 is at the far left of the socket; the corner's signs say where that is in the view.
  const [sx, sy] = toView(view, -1, 1)
  const cx = sx < 0 ? left - margin * 0.7 : right + margin * 0.7
  const cy = sy < 0 ? top - margin * 0.7 : bottom + margin * 0.7
  d['pin 1'].push(`M${n(cx)} ${n(cy)}l${n(-sx * p * 0.75)} 0l${n(sx * p * 0.75)} ${n(-sy * p * 0.75)}Z`)
  const ground: Ground = {
    inked: inkedPaths((ink) => d[ink].join('')),
    places,
    box: [left - margin, top - margin, right - left + 2 * margin, bottom - top + 2 * margin],
  }
  kept.set(key, ground)
  return ground
}

/**
 * The field in needle notation: each contact a stroke from its foot to its tip, its head telling the state.
 * One path an ink, so that a canvas, an SVG and a PDF draw the same thing quickly.
 */
export function displayList(
  socket: Socket,
  pass: { readonly marks: Marks; readonly looked: Pass['looked'] | null } | null,
  view: View = plainView,
): DisplayList {
  const ground = groundOf(socket, view)
  const d = blank()
  const { named } = fieldOf(socket)
  const most = 2 * socket.contacts.length
  const unmarked = {
    healthy: new Float64Array(most),
    unseen: new Float64Array(most),
    sound: new Float64Array(most),
  }
  const count = { healthy: 0, unseen: 0, sound: 0 }
  socket.contacts.forEach((contact, i) => {
    const mark = pass?.marks[contact.name]
    if (mark && isDamage(mark)) {
      drawMark(d, socket.pitchMm, view, contact, mark, mark.touches ? named.get(mark.touches) : undefined)
      return
    }
    const ink = mark ? 'sound' : pass?.looked && !pass.looked[contact.name] ? 'unseen' : 'healthy'
    unmarked[ink].set(ground.places[i]!, count[ink])
    count[ink] += 2
  })
  const dots: DisplayList['dots'] = {
    healthy: { at: unmarked.healthy.subarray(0, count.healthy), radiusMm: socket.pitchMm * 0.11 },
    unseen: { at: unmarked.unseen.subarray(0, count.unseen), radiusMm: socket.pitchMm * 0.17 },
    sound: { at: unmarked.sound.subarray(0, count.sound), radiusMm: socket.pitchMm * 0.19 },
  }
  const marked = inkedPaths((ink) => d[ink].join(''))
  return {
    ground: ground.inked,
    marked,
    dots,
    box: ground.box,
    get paths() {
      const drawn = new Map([...ground.inked, ...marked].map((p) => [p.ink, p.d]))
      return inkedPaths((ink) =>
        ink === 'healthy' || ink === 'unseen' || ink === 'sound' ? dotted(dots[ink]) : (drawn.get(ink) ?? ''),
      )
    },
  }
}

const inkedPaths = (of: (ink: Ink) => string): InkedPath[] =>
  inks.flatMap((ink) => {
    const d = of(ink)
    return d === '' ? [] : [{ ink, d }]
  })

function dotted({ at, radiusMm }: Dots): string {
  const all: string[] = []
  for (let i = 0; i < at.length; i += 2) all.push(circle(at[i]!, at[i + 1]!, radiusMm))
  return all.join('')
}

/** Tints and patterns of the broad regions; a function that is only guessed is hatched. */
function drawZones(socket: Socket, view: View, d: Record<Ink, string[]>): void {
  const h = socket.pitchMm / 2
  const zones = zonesOf(socket)
  const tiles: Tile[] = []
  const slants: Slant[] = []
  socket.contacts.forEach((contact, i) => {
    const zone = zones[i]
    const [x, y] = toView(view, contact.xMm, contact.yMm)
    if (zone) {
      tiles.push({ zone, x, y })
      if (zone === 'power') d.pattern.push(`M${n(x - h * 0.4)} ${n(y + h)}h${n(h * 0.8)}`)
      if (zone === 'lanes') d.pattern.push(`M${n(x + h)} ${n(y - h * 0.4)}v${n(h * 0.8)}`)
      if (zone === 'control')
        d.pattern.push(
          `M${n(x + h * 0.6)} ${n(y + h)}h${n(h * 0.8)}M${n(x + h)} ${n(y + h * 0.6)}v${n(h * 0.8)}`,
        )
    }
    if (contact.trust === 'region' || contact.trust === 'none') slants.push({ x, y })
  })
  for (const { zone, x, y, long } of rowsOf(tiles, 2 * h))
    d[`zone ${zone}`].push(`M${n(x - h)} ${n(y - h)}h${n(2 * h * long)}v${n(2 * h)}h${n(-2 * h * long)}Z`)
  for (const { x, y, long } of hatches(slants, 2 * h))
    d.untrusted.push(`M${n(x - h)} ${n(y + h)}L${n(x - h + 2 * h * long)} ${n(y + h - 2 * h * long)}`)
}

interface Slant {
  readonly x: number
  readonly y: number
}
interface Tile extends Slant {
  readonly zone: Zone
}

/** Tiles of one zone that stand side by side, as one: the first of them and how many. */
function rowsOf(tiles: readonly Tile[], pitch: number): (Tile & { readonly long: number })[] {
  const sorted = [...tiles].sort((a, b) => a.y - b.y || a.x - b.x)
  const rows: (Tile & { long: number })[] = []
  for (const tile of sorted) {
    const row = rows.at(-1)
    if (
      row?.zone === tile.zone &&
      Math.abs(row.y - tile.y) < 1e-6 &&
      Math.abs(row.x + row.long * pitch - tile.x) < 1e-3 * pitch
    )
      row.long++
    else rows.push({ ...tile, long: 1 })
  }
  return rows
}

/** Slanting strokes that meet end to end, as one: the lowest left of them and how many. */
function hatches(slants: readonly Slant[], pitch: number): (Slant & { readonly long: number })[] {
  const key = (x: number, y: number) => `${Math.round((100 * x) / pitch)} ${Math.round((100 * y) / pitch)}`
  const all = new Map(slants.map((s) => [key(s.x, s.y), s]))
  return slants.flatMap((s) => {
    if (all.has(key(s.x - pitch, s.y + pitch))) return []
    let long = 1
    while (all.has(key(s.x + long * pitch, s.y - long * pitch))) long++
    return [{ ...s, long }]
  })
}

function drawMark(
  d: Record<Ink, string[]>,
  p: number,
  view: View,
  contact: Contact,
  mark: Mark,
  touched: Contact | undefined,
): void {
  const danger = mark.kind === 'touching' || mark.kind === 'snapped' || mark.kind === 'folded'
  const stroke = danger ? d['danger stroke'] : d.stroke
  const head = danger ? d['danger head'] : d.head
  const lean = usualLeanMm(mark)
  const [fx, fy] = toView(view, contact.xMm, contact.yMm)
  const reach =
    mark.kind === 'folded' && touched
      ? ([touched.xMm - contact.xMm, touched.yMm - contact.yMm] as const)
      : ([lean[0] * view.exaggeration, lean[1] * view.exaggeration] as const)
  const [x, y] = toView(view, contact.xMm + reach[0], contact.yMm + reach[1])
  const r = p * 0.24
  if (x !== fx || y !== fy) stroke.push(`M${n(fx)} ${n(fy)}L${n(x)} ${n(y)}`)
  if (touched) {
    const [tx, ty] = toView(view, touched.xMm, touched.yMm)
    d.tie.push(`M${n(x)} ${n(y)}L${n(tx)} ${n(ty)}`)
  }
  const bar = (dy: number) => stroke.push(`M${n(x - p * 0.34)} ${n(y + dy)}h${n(p * 0.68)}`)
  switch (mark.kind) {
    case 'snapped':
      stroke.push(
        `M${n(x - r)} ${n(y - r)}l${n(2 * r)} ${n(2 * r)}M${n(x + r)} ${n(y - r)}l${n(-2 * r)} ${n(2 * r)}`,
      )
      break
    case 'tip gone':
      d.ring.push(circle(x, y, r))
      break
    case 'twisted':
      head.push(`M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 0 1 ${n(2 * r)} 0Z`)
      break
    case 'touching':
      head.push(circle(x, y, r))
      stroke.push(`M${n(x - r * 1.5)} ${n(y - r * 1.5)}l${n(r * 3)} ${n(r * 3)}`)
      break
    case 'folded':
      head.push(circle(x, y, r * 0.8))
      stroke.push(`M${n(fx - r)} ${n(fy)}h${n(2 * r)}M${n(fx)} ${n(fy - r)}v${n(2 * r)}`)
      break
    case 'scuffed':
      for (const k of [-1, 0, 1])
        stroke.push(`M${n(x + k * r * 0.8 - r * 0.5)} ${n(y + r)}l${n(r)} ${n(-2 * r)}`)
      break
    case 'lodged':
      d.ring.push(
        `M${n(x)} ${n(y - r * 1.3)}l${n(r * 1.3)} ${n(r * 1.3)}l${n(-r * 1.3)} ${n(r * 1.3)}l${n(-r * 1.3)} ${n(-r * 1.3)}Z`,
      )
      break
    case 'paste':
      d.ring.push(`M${n(x - r * 1.3)} ${n(y)}q${n(r * 0.65)} ${n(-r * 1.4)} ${n(r * 1.3)} 0t${n(r * 1.3)} 0`)
      break
    default:
      head.push(circle(x, y, r))
  }
  const height = mark.heightMm ?? 0
  if (mark.kind === 'low' || height < 0) bar(p * 0.42)
  if (mark.kind === 'high' || height > 0) bar(-p * 0.42)
}

const n = (v: number) => String(Math.round(v * 1000) / 1000)
const circle = (x: number, y: number, r: number) =>
  `M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 1 0 ${n(2 * r)} 0a${n(r)} ${n(r)} 0 1 0 ${n(-2 * r)} 0Z`
