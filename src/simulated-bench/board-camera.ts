import { seeded } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'
import { blur } from '@/core/photo/grey-image'
import type { Point } from '@/core/photo/projection'
import { Eye } from './board-eye'
import { sensorNoise } from './camera-shot'
import type { CameraShot } from './camera-shot'
import { placedOn } from './board-scene'
import { PaintedSheet } from './painted-sheet'
import type { Colour } from './painted-sheet'
import type { BoardScene, OneBoard, SceneBody } from './board-scene'

/** Red, green, blue, alpha, row by row. */
export interface RgbaImage {
  readonly widthPx: number
  readonly heightPx: number
  readonly rgba: Uint8ClampedArray
}

export interface BoardPhoto {
  readonly image: RgbaImage
  /** Where the middle of every part of the model is seen, whether it is there or not. */
  readonly places: readonly { readonly ref: string; readonly px: Point; readonly inside: boolean }[]
}

const shade = (colour: Colour, by: number): Colour => [colour[0] * by, colour[1] * by, colour[2] * by]
const TIN: Colour = [0.72, 0.72, 0.7]
const GOLD: Colour = [0.75, 0.62, 0.3]
const PRINT: Colour = [0.82, 0.84, 0.8]

/** Corners of a part’s outline on the board, anticlockwise, mm; a share of its length from and to, for its ends. */
function outline(b: SceneBody, from = -0.5, to = 0.5, wider = 0): readonly Point[] {
  const turn = (b.turnDeg * Math.PI) / 180
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  const w = b.wideMm / 2 + wider
  return (
    [
      [from * b.longMm, -w],
      [to * b.longMm, -w],
      [to * b.longMm, w],
      [from * b.longMm, w],
    ] as const
  ).map(([x, y]): Point => [b.xMm + c * x - s * y, b.yMm + s * x + c * y])
}

/** Pixels of the board’s own picture per mm. */
const PLANE_PX = 22

/** The bare board from straight above: mask, traces, vias, print and pads; alike on every board of the model but for the solder. */
function bareBoard(scene: BoardScene, board: OneBoard): PaintedSheet {
  const sheet = new PaintedSheet(Math.ceil(scene.wideMm * PLANE_PX), Math.ceil(scene.deepMm * PLANE_PX))
  sheet.planes.forEach((plane, c) => plane.fill(scene.mask[c]!))
  const draw = seeded(scene.seed * 17 + 3)
  const px = ([x, y]: Point): Point => [x * PLANE_PX, y * PLANE_PX]
  const lighter: Colour = [
    scene.mask[0] * 1.25 + 0.02,
    scene.mask[1] * 1.25 + 0.02,
    scene.mask[2] * 1.2 + 0.02,
  ]
  for (let i = Math.round(scene.wideMm * scene.deepMm * 0.05); i > 0; i--) {
    let at: Point = [draw() * scene.wideMm, draw() * scene.deepMm]
    let way = Math.floor(8 * draw())
    for (let leg = 0; leg < 3; leg++) {
      const long = 1 + 7 * draw()
      const to: Point = [
        at[0] + long * Math.cos((way * Math.PI) / 4),
        at[1] + long * Math.sin((way * Math.PI) / 4),
      ]
      sheet.line(px(at), px(to), 0.15 * PLANE_PX, lighter)
      at = to
      way += draw() < 0.5 ? 1 : -1
    }
    if (draw() < 0.5) {
      sheet.disc(px(at), 0.3 * PLANE_PX, shade(GOLD, 0.8))
      sheet.disc(px(at), 0.13 * PLANE_PX, [0.03, 0.03, 0.03])
    }
  }
  const solder = seeded(board.seed * 13 + 5)
  for (const body of scene.bodies) {
    const { longMm: long, look } = body
    if (look === 'chip') {
      legs(body, (x, y, along) => {
        const at = turned(body, x, y)
        const to = turned(
          body,
          x + (along ? 0 : x > 0 ? 0.55 : -0.55),
          y + (along ? (y > 0 ? 0.55 : -0.55) : 0),
        )
        sheet.line(px(at), px(to), 0.35 * PLANE_PX, shade(TIN, 0.75 + 0.35 * solder()))
      })
    } else if (look === 'resistor' || look === 'capacitor' || look === 'coil')
      for (const end of [-1, 1]) {
        const pad = outline(
          body,
          end > 0 ? 0.22 : -0.5 - 0.3 / long,
          end > 0 ? 0.5 + 0.3 / long : -0.22,
          0.05,
        )
        sheet.fill(pad.map(px), shade(TIN, 0.7 + 0.4 * solder()))
        // The light catches the solder somewhere.
        const [a, , b] = pad as readonly [Point, Point, Point, Point]
        const spot: Point = [a[0] + (b[0] - a[0]) * solder(), a[1] + (b[1] - a[1]) * solder()]
        sheet.disc(px(spot), 0.12 * PLANE_PX, [0.97, 0.97, 0.95], 0.5 + 0.5 * solder())
      }
    // The print round it, and its name in strokes beside it.
    const box = outline(body, -0.5 - 0.45 / long, 0.5 + 0.45 / long, look === 'chip' ? 0.9 : 0.22)
    if (long > 1.2 && draw() < 0.7)
      box.forEach((p, i) => sheet.line(px(p), px(box[(i + 1) % 4]!), 0.12 * PLANE_PX, PRINT))
    const [nx, ny] = [box[3]![0], box[3]![1] + 0.25]
    for (let k = 0; k < 3; k++)
      for (let stroke = 0; stroke < 3; stroke++) {
        const from: Point = [nx + k * 0.55 + 0.4 * draw(), ny + 0.7 * draw()]
        const to: Point = [nx + k * 0.55 + 0.4 * draw(), ny + 0.7 * draw()]
        sheet.line(px(from), px(to), 0.1 * PLANE_PX, PRINT)
      }
  }
  return sheet
}

const turned = (b: SceneBody, x: number, y: number): Point => {
  const turn = (b.turnDeg * Math.PI) / 180
  return [b.xMm + Math.cos(turn) * x - Math.sin(turn) * y, b.yMm + Math.sin(turn) * x + Math.cos(turn) * y]
}

/** The legs of a chip, where they leave its body. */
function legs(b: SceneBody, leg: (x: number, y: number, along: boolean) => void): void {
  const step = 0.65
  for (let y = -b.wideMm / 2 + 0.5; y <= b.wideMm / 2 - 0.5; y += step)
    for (const side of [-1, 1]) leg((side * b.longMm) / 2, y, false)
  if (b.longMm < 7) return
  for (let x = -b.longMm / 2 + 0.6; x <= b.longMm / 2 - 0.6; x += step)
    for (const side of [-1, 1]) leg(x, (side * b.wideMm) / 2, true)
}

/**
 * Photo of one board of a model as it really is: parts are boxes and cans that stand up from the board and hide what is
 * behind them; solder glints where the light of this photo catches it; lots are marked differently. Yields the share done.
 */
export function* takeBoardPhoto(
  scene: BoardScene,
  board: OneBoard,
  shot: CameraShot,
): Generator<number, BoardPhoto> {
  const eye = new Eye(shot)
  const { widthPx, heightPx } = shot
  const sheet = new PaintedSheet(widthPx, heightPx)
  layBoard(sheet, bareBoard(scene, board), eye)
  yield 0.35
  const draw = seeded(board.seed * 101 + 11)
  const standing = placedOn(scene, board)
  // What is farther from the eye is laid first.
  const far = (b: SceneBody) => Math.hypot(b.xMm - eye.at[0], b.yMm - eye.at[1])
  const lots = new Map(scene.bodies.map((b) => [b.ref, draw()]))
  for (const body of [...standing].sort((a, b) => far(b) - far(a)))
    drawBody(sheet, eye, body, seeded(scene.seed + hash(body.ref)), lots.get(body.ref)!, shot)
  yield 0.6
  const light = seeded(shot.seed)
  for (let i = 0; i < shot.glare; i++)
    sheet.glow(
      [light() * widthPx, light() * heightPx],
      shot.pxPerMm * (2 + 4 * light()),
      shot.glareStrength * (0.6 + 0.8 * light()),
    )
  const planes = sheet.planes.map((values) => blur({ widthPx, heightPx, values }, shot.blurPx).values)
  yield 0.85
  const image = exposed(planes, shot, light)
  const places = scene.bodies.map(({ ref, xMm, yMm }) => {
    const px = eye.see([xMm, yMm, 0])
    return { ref, px, inside: px[0] > 20 && px[1] > 20 && px[0] < widthPx - 20 && px[1] < heightPx - 20 }
  })
  return { image, places }
}

const hash = (text: string) => [...text].reduce((h, c) => (Math.imul(h, 31) + c.charCodeAt(0)) | 0, 7)

/** The bare board as it is seen; the bench beyond its edge. */
function layBoard(to: PaintedSheet, from: PaintedSheet, eye: Eye): void {
  const { widthPx, heightPx } = to
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) {
      const [mx, my] = eye.behind(x, y)
      const [u, v] = [mx * PLANE_PX, my * PLANE_PX]
      const at = y * widthPx + x
      if (u < 0 || v < 0 || u >= from.widthPx - 1 || v >= from.heightPx - 1) {
        for (const plane of to.planes) plane[at] = 0.45
        continue
      }
      const [ix, iy] = [Math.floor(u), Math.floor(v)]
      const [fx, fy] = [u - ix, v - iy]
      const k = iy * from.widthPx + ix
      for (let c = 0; c < 3; c++) {
        const p = from.planes[c]!
        to.planes[c]![at] =
          (p[k]! * (1 - fx) + p[k + 1]! * fx) * (1 - fy) +
          (p[k + from.widthPx]! * (1 - fx) + p[k + from.widthPx + 1]! * fx) * fy
      }
    }
}

/** A box from the board up to its height, its ends in another colour where it has caps. */
function box(
  sheet: PaintedSheet,
  eye: Eye,
  base: readonly Point[],
  highMm: number,
  colour: Colour,
): readonly Point[] {
  const low = base.map(([x, y]) => eye.see([x, y, 0]))
  const top = base.map(([x, y]) => eye.see([x, y, highMm]))
  base.forEach((_, i) => {
    const k = (i + 1) % base.length
    sheet.fill([low[i]!, low[k]!, top[k]!, top[i]!], shade(colour, 0.62))
  })
  sheet.fill(top, colour)
  return top
}

function drawBody(
  sheet: PaintedSheet,
  eye: Eye,
  b: SceneBody,
  model: Uniform,
  lot: number,
  shot: CameraShot,
): void {
  const gloss = 0.9 + 0.2 * lot
  const onTop = (x: number, y: number): Point => {
    const [mx, my] = turned(b, x, y)
    return eye.see([mx, my, b.highMm])
  }
  const px = shot.pxPerMm
  if (b.look === 'resistor' || b.look === 'capacitor') {
    const colour: Colour =
      b.look === 'resistor' ? [0.07, 0.07, 0.08] : [0.5 * gloss, 0.38 * gloss, 0.25 * gloss]
    box(sheet, eye, outline(b), b.highMm, shade(TIN, 0.85 * gloss))
    sheet.fill(
      outline(b, -0.28, 0.28).map(([x, y]) => eye.see([x, y, b.highMm])),
      colour,
    )
    if (b.look === 'resistor' && b.longMm > 1.3)
      strokes(sheet, model, onTop, b.longMm * 0.4, b.wideMm * 0.5, 3, 0.09 * px, [0.75, 0.75, 0.75])
  } else if (b.look === 'chip') {
    legs(b, (x, y, along) => {
      const [ex, ey] = [x + (along ? 0 : Math.sign(x) * 0.45), y + (along ? Math.sign(y) * 0.45 : 0)]
      const [from, to] = [turned(b, x, y), turned(b, ex, ey)]
      sheet.line(eye.see([...from, 0.5]), eye.see([...to, 0.05]), 0.28 * px, shade(TIN, 0.9 * gloss))
    })
    box(sheet, eye, outline(b), b.highMm, shade([0.1, 0.1, 0.11], gloss))
    sheet.disc(onTop(-b.longMm * 0.38, b.wideMm * 0.36), 0.22 * px, [0.2, 0.2, 0.2])
    const print: Colour = [0.5, 0.5, 0.5]
    strokes(sheet, model, onTop, b.longMm * 0.6, b.wideMm * 0.28, 8, 0.12 * px, print, [0, -b.wideMm * 0.12])
    // The lot: another on each board.
    strokes(sheet, seeded(lot * 1e6), onTop, b.longMm * 0.5, b.wideMm * 0.16, 7, 0.1 * px, print, [0, b.wideMm * 0.2]) // prettier-ignore
  } else if (b.look === 'can') {
    const round = Array.from({ length: 28 }, (_, i): Point => {
      const a = (i / 28) * 2 * Math.PI
      return [b.xMm + (b.longMm / 2) * Math.cos(a), b.yMm + (b.longMm / 2) * Math.sin(a)]
    })
    box(sheet, eye, round, b.highMm, shade([0.72, 0.72, 0.74], gloss))
    const way = model() * 6.28
    const sector = Array.from({ length: 9 }, (_, i) => {
      const a = way + (i / 8 - 0.5) * 1.6
      return onTop((b.longMm / 2.1) * Math.cos(a), (b.longMm / 2.1) * Math.sin(a))
    })
    sheet.fill(sector, [0.15, 0.15, 0.35])
    strokes(sheet, model, onTop, b.longMm * 0.5, b.longMm * 0.3, 8, 0.15 * px, [0.2, 0.2, 0.2])
  } else if (b.look === 'coil') {
    box(sheet, eye, outline(b), b.highMm, shade([0.3, 0.3, 0.31], gloss))
    strokes(sheet, model, onTop, b.longMm * 0.5, b.wideMm * 0.3, 6, 0.16 * px, [0.6, 0.6, 0.6])
  } else {
    box(sheet, eye, outline(b), b.highMm, shade([0.16, 0.16, 0.17], gloss))
    for (let x = -b.longMm / 2 + 1; x < b.longMm / 2 - 0.6; x += 1.27)
      for (const y of [-b.wideMm * 0.18, b.wideMm * 0.18])
        sheet.fill([onTop(x - 0.25, y - 0.3), onTop(x + 0.25, y - 0.3), onTop(x + 0.25, y + 0.3), onTop(x - 0.25, y + 0.3)], shade(GOLD, 0.8)) // prettier-ignore
  }
}

/** Marking, as strokes. */
function strokes(
  sheet: PaintedSheet,
  draw: Uniform,
  at: (x: number, y: number) => Point,
  wideMm: number,
  highMm: number,
  many: number,
  thick: number,
  colour: Colour,
  [cx, cy]: Point = [0, 0],
): void {
  const step = wideMm / many
  for (let i = 0; i < many; i++)
    for (let k = 0; k < 2; k++) {
      const x = cx - wideMm / 2 + (i + 0.15) * step
      const to = () => [x + 0.7 * step * draw(), cy + (draw() - 0.5) * highMm] as const
      sheet.line(at(...to()), at(...to()), thick, colour)
    }
}

/** Light that falls off to one side, noise, and what the sensor makes of it. */
function exposed(planes: readonly Float32Array[], shot: CameraShot, draw: Uniform): RgbaImage {
  const { widthPx, heightPx } = shot
  const rgba = new Uint8ClampedArray(4 * widthPx * heightPx)
  const way = (shot.lightDeg * Math.PI) / 180
  const [lx, ly] = [Math.cos(way), Math.sin(way)]
  const noise = sensorNoise(draw)
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) {
      const i = y * widthPx + x
      const across = ((x / widthPx - 0.5) * lx - (y / heightPx - 0.5) * ly) * 1.5
      for (let c = 0; c < 3; c++)
        rgba[4 * i + c] = 255 * (planes[c]![i]! * (1 + shot.gradient * across) + noise(shot.noise))
      rgba[4 * i + 3] = 255
    }
  return { widthPx, heightPx, rgba }
}
