import { normalDraw, seeded } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'
import { benchBeam } from '@/core/socket/contact/contact-force'
import { usualHeightMm, usualLeanMm } from '@/core/socket/damage/mark'
import type { Mark, Marks } from '@/core/socket/damage/mark'
import type { GreyImage } from '@/core/photo/grey-image'
import { blur } from '@/core/photo/grey-image'
import type { Point } from '@/core/photo/projection'
import { Pinhole, sensorNoise, turnedBy } from './camera-shot'
import type { CameraShot, Point3 } from './camera-shot'
import { BEAM_RUN_MM } from '@/core/socket/damage/short'
import { fieldOf } from '@/core/socket/model/socket'
import type { Contact, Socket } from '@/core/socket/model/socket'

/** What contacts and housing of one make look like; brightness as share of full scale, sizes in mm. */
export interface Look {
  readonly housing: number
  /** Brightness of the strip at its foot and at its tip. */
  readonly strip: readonly [foot: number, tip: number]
  /** Radius and brightness of the rounded tip, and how much longer than wide it is along its strip. */
  readonly tipMm: number
  readonly tip: number
  readonly longer: number
  /** Where the light catches the tip: how far off its middle, how wide, how bright. */
  readonly glintOffMm: number
  readonly glintMm: number
  readonly glint: number
  /** How unlike one another they are made: σ of place (mm) and of brightness (share). */
  readonly madeMm: number
  readonly gloss: number
}

export const plainLook: Look = {
  housing: 0.13,
  strip: [0.2, 0.36],
  tipMm: benchBeam.tipRadiusMm,
  tip: 0.5,
  longer: 0,
  glintOffMm: 0.02,
  glintMm: 0.045,
  glint: 0.4,
  madeMm: 0.008,
  gloss: 0.08,
}

/** How a photo of a field is taken. */
export interface Shot extends CameraShot {
  readonly mirrored: boolean
  readonly look: Look
}

export const plainShot: Shot = {
  widthPx: 4000,
  heightPx: 3000,
  pxPerMm: 72,
  centreMm: [0, 0],
  tiltDeg: 2,
  tiltTowardsDeg: 200,
  turnDeg: 1,
  mirrored: false,
  lens: 0.01,
  blurPx: 1.2,
  noise: 0.03,
  gradient: 0.15,
  lightDeg: 60,
  glare: 2,
  glareStrength: 0.4,
  look: plainLook,
  seed: 1,
}

/** What is really there, and where it is in the photo. */
export interface TrueTip {
  readonly name: string
  readonly px: Point
  readonly inside: boolean
  /** No tip stands any more. */
  readonly gone: boolean
  readonly offsetMm: Point
  readonly heightMm: number
}

export interface Photo {
  readonly image: GreyImage
  readonly tips: readonly TrueTip[]
}

/** Distance of the eye and height of a free tip above the housing, mm. */
const EYE_MM = 140
const TIP_HEIGHT_MM = 0.7

/** A pinhole with its lens: a radial term, and a smaller one of fourth order that goes with it. */
function lensOf(shot: Shot): (place: Point3) => Point {
  const pinhole = new Pinhole(shot, EYE_MM, TIP_HEIGHT_MM)
  const half = Math.hypot(shot.widthPx, shot.heightPx) / 2
  return (place) => {
    const [u, v] = pinhole.see(place)
    const [x, y] = turnedBy(shot.turnDeg, [u * (shot.mirrored ? -1 : 1), v])
    const r2 = (x * x + y * y) / (half * half)
    const lens = 1 + shot.lens * r2 - 0.25 * shot.lens * r2 * r2
    // The lens sits a little off the middle of the picture, as lenses do.
    return [shot.widthPx * 0.502 + x * lens, shot.heightPx * 0.498 + y * lens]
  }
}

/** Where a contact's tip really is: what was measured if it was, else the usual for its kind. */
function trueTip(
  contact: Contact,
  mark: Mark | undefined,
  touches: Contact | undefined,
  tipMm: number,
): Omit<TrueTip, 'name' | 'px' | 'inside'> {
  const gone = mark?.kind === 'snapped' || mark?.kind === 'tip gone'
  let [dx, dy] = mark ? usualLeanMm(mark) : [0, 0]
  if (mark && !mark.leanMm && touches && (mark.kind === 'touching' || mark.kind === 'folded')) {
    const far = Math.hypot(touches.xMm - contact.xMm, touches.yMm - contact.yMm)
    const reach = mark.kind === 'touching' ? far - 1.9 * tipMm : far * 0.82
    dx = ((touches.xMm - contact.xMm) / far) * reach
    dy = ((touches.yMm - contact.yMm) / far) * reach
  }
  const heightMm = mark?.kind === 'folded' ? -0.35 : mark ? usualHeightMm(mark) : 0
  return { gone, offsetMm: [dx, dy], heightMm }
}

/** A picture in the making, 0 to 1. */
class Canvas {
  constructor(
    readonly widthPx: number,
    readonly heightPx: number,
    readonly values: Float32Array = new Float32Array(widthPx * heightPx),
  ) {}

  /** Lays a rod with round ends over the picture; what is nearer than half a pixel to its edge is mixed. */
  rod(a: Point, b: Point, ra: number, rb: number, from: number, to: number, cover = 1): void {
    const [ax, ay] = a
    const [bx, by] = [b[0] - ax, b[1] - ay]
    const most = Math.max(ra, rb) + 1
    const [x0, x1] = [Math.min(ax, b[0]) - most, Math.max(ax, b[0]) + most]
    const [y0, y1] = [Math.min(ay, b[1]) - most, Math.max(ay, b[1]) + most]
    const length2 = bx * bx + by * by
    for (let y = Math.max(0, Math.floor(y0)); y <= Math.min(this.heightPx - 1, Math.ceil(y1)); y++)
      for (let x = Math.max(0, Math.floor(x0)); x <= Math.min(this.widthPx - 1, Math.ceil(x1)); x++) {
        const px = x - ax
        const py = y - ay
        const t = length2 < 1e-9 ? 0 : Math.min(1, Math.max(0, (px * bx + py * by) / length2))
        const dx = px - bx * t
        const dy = py - by * t
        // A square root of the sum: Math.hypot guards against overflow and takes ten times as long.
        const inside = ra + (rb - ra) * t - Math.sqrt(dx * dx + dy * dy) + 0.5
        if (inside <= 0) continue
        const at = y * this.widthPx + x
        const share = Math.min(1, inside) * cover
        this.values[at]! += share * (from + (to - from) * t - this.values[at]!)
      }
  }

  /** A soft spot of light. */
  glow([cx, cy]: Point, sigmaPx: number, strength: number): void {
    const reach = 3 * sigmaPx
    for (let y = Math.max(0, Math.floor(cy - reach)); y <= Math.min(this.heightPx - 1, cy + reach); y++)
      for (let x = Math.max(0, Math.floor(cx - reach)); x <= Math.min(this.widthPx - 1, cx + reach); x++) {
        const d2 = (x - cx) ** 2 + (y - cy) ** 2
        this.values[y * this.widthPx + x]! += strength * Math.exp(-d2 / (2 * sigmaPx * sigmaPx))
      }
  }
}

/**
 * Photo of a socket as it really is, with light, lens, blur, noise and glare.
 * A dark housing with a pocket for each contact, a strip from foot to tip, and on the tip a spot where the light
 * catches it, off to the side of the light. Yields the share that is done.
 * @param marks the truth; what a mark does not say is taken as the usual for its kind
 */
export function* takePhoto(socket: Socket, marks: Marks, shot: Shot): Generator<number, Photo> {
  const draw = seeded(shot.seed)
  const canvas = new Canvas(shot.widthPx, shot.heightPx)
  const lens = lensOf(shot)
  plastic(canvas, shot.look.housing, draw)
  yield 0.1
  const { named } = fieldOf(socket)
  const light: Point = [Math.cos((shot.lightDeg * Math.PI) / 180), Math.sin((shot.lightDeg * Math.PI) / 180)]
  const tips: TrueTip[] = []
  // What lies over others is laid on last.
  const height = (c: Contact) => (marks[c.name]?.kind === 'folded' ? 1 : 0)
  const order = socket.contacts.map((c, i) => [c, i] as const).sort((a, b) => height(a[0]) - height(b[0]))
  const done = new Map<number, TrueTip>()
  const laid: (() => void)[] = []
  for (const [contact, i] of order) {
    const mark = marks[contact.name]
    const truth = trueTip(contact, mark, mark?.touches ? named.get(mark.touches) : undefined, shot.look.tipMm)
    // No two contacts are made quite alike.
    const { madeMm, gloss: unlike } = shot.look
    const made: Point = [madeMm * normalDraw(draw), madeMm * normalDraw(draw)]
    const gloss = 1 + unlike * normalDraw(draw)
    const tip: Point3 = [
      contact.xMm + truth.offsetMm[0] + made[0],
      contact.yMm + truth.offsetMm[1] + made[1],
      TIP_HEIGHT_MM + truth.heightMm,
    ]
    const px = lens(tip)
    const inside = px[0] > 6 && px[1] > 6 && px[0] < shot.widthPx - 6 && px[1] < shot.heightPx - 6
    done.set(i, { name: contact.name, px, inside, ...truth })
    laid.push(() => drawContact(canvas, lens, socket, contact, mark, tip, light, shot.look, gloss, draw))
  }
  for (const contact of socket.contacts) pocket(canvas, lens, socket, contact)
  for (const lay of laid) lay()
  for (let i = 0; i < socket.contacts.length; i++) tips.push(done.get(i)!)
  yield 0.5
  dirt(canvas, socket, lens, draw)
  const blurred = blur({ widthPx: shot.widthPx, heightPx: shot.heightPx, values: canvas.values }, shot.blurPx)
  yield 0.75
  const lit = new Canvas(shot.widthPx, shot.heightPx, blurred.values)
  for (let i = 0; i < shot.glare; i++) {
    const at = lens([
      (draw() - 0.5) * span(socket, 'xMm'),
      (draw() - 0.5) * span(socket, 'yMm'),
      TIP_HEIGHT_MM,
    ])
    lit.glow(at, shot.pxPerMm * (0.5 + 0.9 * draw()), shot.glareStrength * (0.6 + 0.8 * draw()))
  }
  return { image: exposed(lit, shot, light, draw), tips }
}

const span = (socket: Socket, axis: 'xMm' | 'yMm') =>
  2 * Math.max(...socket.contacts.map((c) => Math.abs(c[axis])))

/** Dark moulded plastic, a little uneven. */
function plastic({ values, widthPx, heightPx }: Canvas, housing: number, draw: Uniform): void {
  const phase = Array.from({ length: 4 }, () => draw() * 6.3)
  const wave = (from: number, px: number) =>
    Float64Array.from({ length: widthPx }, (_, x) => Math.sin(x / px + from))
  const broad = wave(phase[0]!, 47)
  // sin(a + b) = sin a · cos b + cos a · sin b, so that no pixel asks for a sine of its own.
  const [sines, cosines] = [wave(phase[2]!, 23), wave(phase[2]! + Math.PI / 2, 23)]
  for (let y = 0; y < heightPx; y++) {
    const across = 0.012 * Math.sin(y / 59 + phase[1]!)
    const [c, s] = [0.004 * Math.cos((0.6 * y) / 23), 0.004 * Math.sin((0.6 * y) / 23)]
    for (let x = 0; x < widthPx; x++)
      values[y * widthPx + x] = housing + across * broad[x]! + c * sines[x]! + s * cosines[x]!
  }
}

/** Foot of a contact on the housing, and how many pixels a millimetre has there. */
function footOf(
  lens: (place: Point3) => Point,
  socket: Socket,
  contact: Contact,
): { readonly px: Point; readonly mm: number; readonly at: Point3 } {
  const angle = (contact.beamDeg * Math.PI) / 180
  const run = socket.kind === 'pin-grid' ? 0 : BEAM_RUN_MM
  const at: Point3 = [contact.xMm - run * Math.cos(angle), contact.yMm - run * Math.sin(angle), 0.05]
  const px = lens(at)
  const far = lens([at[0] + 0.5, at[1], at[2]])
  return { px, at, mm: Math.hypot(far[0] - px[0], far[1] - px[1]) / 0.5 }
}

/** The pocket in the housing that a contact stands in. */
function pocket(canvas: Canvas, lens: (place: Point3) => Point, socket: Socket, contact: Contact): void {
  const { px, mm } = footOf(lens, socket, contact)
  canvas.rod(px, lens([contact.xMm, contact.yMm, 0]), 0.16 * mm, 0.13 * mm, 0.05, 0.07)
}

function drawContact(
  canvas: Canvas,
  lens: (place: Point3) => Point,
  socket: Socket,
  contact: Contact,
  mark: Mark | undefined,
  tip: Point3,
  light: Point,
  look: Look,
  gloss: number,
  draw: Uniform,
): void {
  const { px: footPx, mm, at: foot } = footOf(lens, socket, contact)
  if (mark?.kind === 'snapped') return
  const tipPx = lens(tip)
  if (mark?.kind === 'tip gone') {
    const broken = lens([(foot[0] + tip[0]) / 2, (foot[1] + tip[1]) / 2, TIP_HEIGHT_MM * 0.6])
    canvas.rod(footPx, broken, 0.1 * mm, 0.08 * mm, look.strip[0] * gloss, (look.strip[0] + 0.08) * gloss)
    if (draw() < 0.5) canvas.rod(broken, broken, 0.04 * mm, 0.04 * mm, 0.42 * gloss, 0.42 * gloss)
    return
  }
  const flat = mark?.kind === 'folded'
  canvas.rod(
    footPx,
    tipPx,
    0.1 * mm,
    0.075 * mm,
    (look.strip[0] + (flat ? 0.14 : 0)) * gloss,
    (look.strip[1] + (flat ? 0.02 : 0)) * gloss,
  )
  const sunk = Math.max(0, -tip[2] + TIP_HEIGHT_MM)
  const shine = gloss * (flat ? 0.7 : 1) * Math.exp(-1.2 * sunk) * (mark?.kind === 'twisted' ? 0.72 : 1)
  const along = (contact.beamDeg * Math.PI) / 180
  const half = look.longer * look.tipMm
  const end = (way: number) =>
    lens([tip[0] + way * half * Math.cos(along), tip[1] + way * half * Math.sin(along), tip[2]])
  const round = look.tipMm * mm
  canvas.rod(end(-1), end(1), round, round, look.tip * shine, look.tip * shine)
  // The light catches the rounded tip on its side; a twisted one shows it elsewhere.
  const turned = mark?.kind === 'twisted' ? Math.PI / 2 : 0
  const catching = [
    light[0] * Math.cos(turned) - light[1] * Math.sin(turned),
    light[0] * Math.sin(turned) + light[1] * Math.cos(turned),
  ] as const
  const spot = lens([tip[0] + look.glintOffMm * catching[0], tip[1] + look.glintOffMm * catching[1], tip[2]])
  canvas.glow(spot, look.glintMm * mm, look.glint * shine)
  if (mark?.kind === 'paste') canvas.rod(tipPx, footPx, 0.28 * mm, 0.22 * mm, 0.42, 0.4, 0.85)
  if (mark?.kind === 'lodged') {
    const end: Point = [tipPx[0] + 0.3 * mm * (draw() - 0.5), tipPx[1] + 0.3 * mm * (draw() - 0.5)]
    canvas.rod(tipPx, end, 0.16 * mm, 0.1 * mm, 0.55, 0.3)
  }
}

/** Specks of dust, here and there a bright one. */
function dirt(canvas: Canvas, socket: Socket, lens: (place: Point3) => Point, draw: Uniform): void {
  const specks = Math.round(socket.contacts.length / 40)
  const [wide, high] = [span(socket, 'xMm'), span(socket, 'yMm')]
  for (let i = 0; i < specks; i++) {
    const at = lens([(draw() - 0.5) * wide, (draw() - 0.5) * high, 0.3 + 0.4 * draw()])
    const next = lens([0.1, 0, TIP_HEIGHT_MM])
    const mm =
      Math.hypot(next[0] - lens([0, 0, TIP_HEIGHT_MM])[0], next[1] - lens([0, 0, TIP_HEIGHT_MM])[1]) / 0.1
    const bright = 0.25 + 0.45 * draw()
    const r = (0.015 + 0.035 * draw()) * mm
    const end: Point = [at[0] + r * (draw() - 0.5) * 3, at[1] + r * (draw() - 0.5) * 3]
    canvas.rod(at, end, r, r * 0.7, bright, bright)
  }
}

/** Light that falls off to one side, noise, and what the sensor makes of it. */
function exposed({ values, widthPx, heightPx }: Canvas, shot: Shot, light: Point, draw: Uniform): GreyImage {
  // It rounds, and keeps to black and white at its ends.
  const grey = new Uint8ClampedArray(values.length)
  const noise = sensorNoise(draw)
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) {
      const i = y * widthPx + x
      const across = ((x / widthPx - 0.5) * light[0] - (y / heightPx - 0.5) * light[1]) * 1.5
      const value = values[i]! * (1 + shot.gradient * across) + noise(shot.noise)
      grey[i] = 255 * value
    }
  return { widthPx, heightPx, grey: new Uint8Array(grey.buffer) }
}
