import type Konva from 'konva'
import { toView } from '@/core/socket/map/display-list'
import type { View } from '@/core/socket/map/display-list'
import type { MapDrawing } from '@/core/parts/board-map/drawing'
import type { BoardSide } from '@/core/parts/board-map/board-map'
import { ink } from '@/ui/ink'
import type { Camera } from '@/ui/camera'
import type { Theme } from '@/ui/use-theme'

type Context = Konva.Context
/** Left, low, right, high, mm. */
export type Box = readonly [number, number, number, number]

/** What every layer is drawn by; the theme stands for its inks. */
export interface Looked {
  readonly drawing: MapDrawing
  readonly side: BoardSide
  readonly view: View
  readonly camera: Camera
  readonly width: number
  readonly height: number
  readonly theme: Theme
}

/** A part or a contact that stands out, and how. */
export interface Marked {
  readonly box: Box
  readonly label: string
  readonly settled: boolean
}

/** What the map holds is framed at this distance, mm. */
const EDGE_MM = 2
/** A part must be so wide to carry its name, px. */
const NAMED_PX = 26

export const boxOf = ({ boxes }: MapDrawing, p: number): Box => {
  const [left, low, right, high] = boxes.subarray(4 * p, 4 * p + 4)
  return [left!, low!, right!, high!]
}
/** A place of the drawing: its middle and its size, mm. */
export const placeOf = ({ points }: MapDrawing, i: number): Box => {
  const [x, y, w, h] = points.subarray(4 * i, 4 * i + 4)
  return [x!, y!, w!, h!]
}

const middleOf = (drawing: MapDrawing, i: number): readonly [number, number] => {
  const [x, y] = placeOf(drawing, i)
  return [x, y]
}

const isOn = (drawing: MapDrawing, i: number, side: BoardSide) =>
  drawing.side[i] === 2 || drawing.side[i] === (side === 'top' ? 0 : 1)

/** The places and frames of a side, in millimetres: laid once. */
export interface SidePaths {
  readonly pads: Path2D
  readonly holes: Path2D
  readonly frames: Path2D
}
export function pathsOf(drawing: MapDrawing, side: BoardSide): SidePaths {
  const [pads, holes, frames] = [new Path2D(), new Path2D(), new Path2D()]
  for (let i = 0; i < drawing.side.length; i++) {
    if (!isOn(drawing, i, side)) continue
    const [x, y, w, h] = placeOf(drawing, i)
    if (drawing.round[i]) {
      holes.moveTo(x + w / 2, y)
      holes.arc(x, y, w / 2, 0, 2 * Math.PI)
    } else pads.rect(x - w / 2, y - h / 2, w, h)
  }
  drawing.parts.forEach((_, p) => {
    if (drawing.partSide[p] !== side) return
    const [left, low, right, high] = boxOf(drawing, p)
    frames.rect(left, low, right - left, high - low)
  })
  return { pads, holes, frames }
}

/** The places of a net: on this side or through the board, and on the other. */
export interface NetPaths {
  readonly here: Path2D
  readonly there: Path2D
  /** From its first place to each other, where they are few enough to follow. */
  readonly ties: Path2D
}
const MOST_TIES = 60
export function netPathsOf(drawing: MapDrawing, net: string | null, side: BoardSide): NetPaths | null {
  const n = net === null ? -1 : drawing.nets.indexOf(net)
  if (n < 0) return null
  const [here, there, ties] = [new Path2D(), new Path2D(), new Path2D()]
  const places = [...drawing.side.keys()].filter((i) => drawing.of[2 * i + 1] === n)
  for (const i of places) {
    const [x, y, w, h] = placeOf(drawing, i)
    const path = isOn(drawing, i, side) ? here : there
    path.rect(x - w / 2, y - h / 2, w, h)
  }
  const [first, ...others] = places
  if (first !== undefined && others.length <= MOST_TIES)
    for (const i of others) {
      ties.moveTo(...middleOf(drawing, first))
      ties.lineTo(...middleOf(drawing, i))
    }
  return { here, there, ties }
}

function inMm(ctx: Context, { view, camera }: Looked, draw: () => void): void {
  const s = camera.pxPerMm
  const [ax, ay] = toView(view, 1, 0)
  const [bx, by] = toView(view, 0, 1)
  ctx.save()
  ctx.transform(ax * s, ay * s, bx * s, by * s, camera.xPx, camera.yPx)
  draw()
  ctx.restore()
}

/** A box of the board on the screen: left, top, width, height, px. */
function onScreen(
  { view, camera }: Looked,
  [left, low, right, high]: Box,
  growPx = 0,
): readonly [number, number, number, number] {
  const [a, b] = [toView(view, left, low), toView(view, right, high)]
  const px = (mm: number, at: number) => mm * camera.pxPerMm + at
  const [x, y] = [px(Math.min(a[0], b[0]), camera.xPx), px(Math.min(a[1], b[1]), camera.yPx)]
  return [
    x - growPx,
    y - growPx,
    Math.abs(a[0] - b[0]) * camera.pxPerMm + 2 * growPx,
    Math.abs(a[1] - b[1]) * camera.pxPerMm + 2 * growPx,
  ]
}

/** Places, frames of parts, and their names where there is room. */
export function drawBoard(ctx: Context, by: Looked, { pads, holes, frames }: SidePaths): void {
  const { drawing, side, camera, width, height } = by
  inMm(ctx, by, () => {
    ctx.fillStyle = ink('slate')
    ctx.globalAlpha = 0.7
    ctx.fill(pads)
    ctx.globalAlpha = 1
    ctx.strokeStyle = ink('slate')
    ctx.lineWidth = 1 / camera.pxPerMm
    ctx.stroke(holes)
    ctx.strokeStyle = ink('line')
    ctx.stroke(frames)
    const [left, low, right, high] = drawing.box
    ctx.strokeRect(left - EDGE_MM, low - EDGE_MM, right - left + 2 * EDGE_MM, high - low + 2 * EDGE_MM)
  })
  ctx.fillStyle = ink('ink')
  ctx.font = '12px "Atkinson Hyperlegible Mono", monospace'
  ctx.textAlign = 'center'
  ctx.textBaseline = 'bottom'
  drawing.parts.forEach((ref, p) => {
    if (drawing.partSide[p] !== side) return
    const [x, y, w, h] = onScreen(by, boxOf(drawing, p))
    if (Math.max(w, h) < NAMED_PX || x > width || y > height || x + w < 0 || y + h < 0) return
    ctx.fillText(ref, x + w / 2, y - 1)
  })
}

/** The net and the part in hand, dashed where it stands on the other side, and what was found. */
export function drawInHand(
  ctx: Context,
  by: Looked,
  {
    net,
    marked,
    part,
    isBehind,
  }: { net: NetPaths | null; marked: readonly Marked[]; part: Box | null; isBehind: boolean },
): void {
  const px = 1 / by.camera.pxPerMm
  if (net)
    inMm(ctx, by, () => {
      ctx.fillStyle = ink('brass')
      ctx.fill(net.here)
      ctx.strokeStyle = ink('brass')
      ctx.lineWidth = 1.5 * px
      ctx.stroke(net.here)
      ctx.lineWidth = px
      ctx.stroke(net.ties)
      ctx.lineWidth = 1.5 * px
      ctx.setLineDash([3 * px, 2 * px])
      ctx.stroke(net.there)
    })
  ctx.setLineDash([])
  ctx.font = '600 13px "Atkinson Hyperlegible Next Variable", sans-serif'
  ctx.textAlign = 'left'
  ctx.textBaseline = 'middle'
  for (const { box, label, settled } of marked) {
    const [x, y, w, h] = onScreen(by, box, 4)
    ctx.strokeStyle = ink(settled ? 'verd' : 'ember')
    ctx.lineWidth = 2
    ctx.strokeRect(x, y, w, h)
    // Not by colour alone: what is not settled is struck through.
    if (!settled) {
      ctx.beginPath()
      ctx.moveTo(x, y)
      ctx.lineTo(x + w, y + h)
      ctx.stroke()
    }
    if (label === '') continue
    const wide = ctx.measureText(label).width
    ctx.fillStyle = ink('sheet')
    ctx.fillRect(x + w / 2 - wide / 2 - 3, y + h + 2, wide + 6, 18)
    ctx.fillStyle = ink(settled ? 'verd' : 'ember')
    ctx.fillText(label, x + w / 2 - wide / 2, y + h + 12)
  }
  if (part) {
    ctx.strokeStyle = ink('brass')
    ctx.lineWidth = 3
    ctx.setLineDash(isBehind ? [6, 4] : [])
    ctx.strokeRect(...onScreen(by, part, 7))
  }
}
