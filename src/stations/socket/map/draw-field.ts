import type Konva from 'konva'
import type { Cluster } from '@/core/socket/damage/cluster'
import { toView } from '@/core/socket/map/display-list'
import type { DisplayList, Dot, Dots, Ink, InkedPath, View } from '@/core/socket/map/display-list'
import { fieldOf } from '@/core/socket/model/socket'
import type { Contact, Socket } from '@/core/socket/model/socket'
import { inkColours, inkStyle } from '@/core/socket/map/svg'
import type { Camera } from '@/ui/camera'
import type { Theme } from '@/ui/use-theme'

type Context = Konva.Context

export type InkPath = readonly [Ink, Path2D]

// Most inks of a field stay the same from mark to mark; their paths are made once.
const made = new Map<string, Path2D>()
const MOST_KEPT = 200

/** Inked paths for a canvas. */
export const inkPaths = (inked: readonly InkedPath[]): InkPath[] =>
  inked.map(({ ink, d }) => {
    const path = made.get(d) ?? new Path2D(d)
    if (made.size >= MOST_KEPT) made.clear()
    made.set(d, path)
    return [ink, path]
  })

/** What every layer is drawn by. */
export interface Looked {
  readonly socket: Socket
  readonly view: View
  readonly theme: Theme
  readonly camera: Camera
  readonly width: number
  readonly height: number
}

/** Pixels a pitch must have before contacts carry their names, and below which clusters carry theirs. */
const NAMES_PX = 44
const CLUSTERS_PX = 24

const pitchPxOf = ({ socket, camera }: Looked) => socket.pitchMm * camera.pxPerMm

/** Where a place of the field is on the screen. */
const onScreen =
  ({ view, camera }: Looked) =>
  (c: { readonly xMm: number; readonly yMm: number }): readonly [number, number] => {
    const [x, y] = toView(view, c.xMm, c.yMm)
    return [x * camera.pxPerMm + camera.xPx, y * camera.pxPerMm + camera.yPx]
  }

/** Draws in the field's millimetres. */
function inMm(ctx: Context, { camera }: Looked, draw: () => void): void {
  ctx.save()
  ctx.translate(camera.xPx, camera.yPx)
  ctx.scale(camera.pxPerMm, camera.pxPerMm)
  draw()
  ctx.restore()
}

/** Inked paths: the ground (functions and how far they may be believed), or what is marked. */
export function drawPaths(ctx: Context, by: Looked, paths: readonly InkPath[]): void {
  const { camera, socket } = by
  const colours = inkColours[by.theme]
  inMm(ctx, by, () => {
    for (const [ink, path] of paths) {
      const style = inkStyle[ink]
      ctx.lineCap = isGround(ink) ? 'butt' : 'round'
      if (style.fill) {
        ctx.fillStyle = colours[ink]
        ctx.fill(path)
      } else {
        ctx.strokeStyle = colours[ink]
        ctx.lineWidth = Math.max(style.width * socket.pitchMm, 0.9 / camera.pxPerMm)
        ctx.setLineDash(style.dash ? style.dash.map((v) => v * socket.pitchMm) : [])
        ctx.stroke(path)
      }
    }
  })
}

/** Contacts that are not marked, with their names where there is room. */
export function drawContacts(ctx: Context, by: Looked, dots: DisplayList['dots']): void {
  inMm(ctx, by, () => drawDots(ctx, by, dots))
  if (pitchPxOf(by) >= NAMES_PX) drawNames(ctx, by)
}

/** What is marked, and the counts of clusters where contacts are too small to count. */
export function drawDamage(
  ctx: Context,
  by: Looked,
  paths: readonly InkPath[],
  clusters: readonly Cluster[],
): void {
  drawPaths(ctx, by, paths)
  if (pitchPxOf(by) < CLUSTERS_PX) drawClusters(ctx, by, clusters)
}

/** The needle, the swath, and the frame that is being drawn round one. */
export function drawHand(
  ctx: Context,
  by: Looked,
  hand: {
    readonly cursor: Contact | null
    readonly swath: readonly string[]
    readonly rubber: readonly [readonly [number, number], readonly [number, number]] | null
  },
): void {
  const at = onScreen(by)
  const { camera } = by
  const pitchPx = pitchPxOf(by)
  const { named } = fieldOf(by.socket)
  const colour = inkColours[by.theme]['pin 1']
  ctx.strokeStyle = colour
  ctx.lineWidth = 1
  for (const name of hand.swath) {
    const c = named.get(name)
    if (c) ctx.strokeRect(...corner(at(c), pitchPx * 0.42), pitchPx * 0.84, pitchPx * 0.84)
  }
  if (hand.rubber) {
    const [a, b] = hand.rubber.map(
      ([x, y]) => [x * camera.pxPerMm + camera.xPx, y * camera.pxPerMm + camera.yPx] as const,
    )
    ctx.setLineDash([4, 3])
    ctx.strokeRect(a![0], a![1], b![0] - a![0], b![1] - a![1])
    ctx.setLineDash([])
  }
  if (hand.cursor) drawNeedle(ctx, at(hand.cursor), Math.max(9, pitchPx * 0.55), colour, by.width)
}

const isGround = (ink: Ink) => ink.startsWith('zone') || ink === 'pattern' || ink === 'untrusted'

/** Pixels of a pitch below which a dot is no larger than a few pixels and is drawn as a square. */
const SQUARE_PX = 16

/** All dots of an ink as squares; they are the same at every scale, so they are laid once. */
const squares = new WeakMap<Dots, Path2D>()
function squaresOf(dots: Dots): Path2D {
  const known = squares.get(dots)
  if (known) return known
  const { at, radiusMm: r } = dots
  const path = new Path2D()
  for (let i = 0; i < at.length; i += 2) path.rect(at[i]! - r, at[i + 1]! - r, 2 * r, 2 * r)
  squares.set(dots, path)
  return path
}

/** The dots in sight as circles. */
function circlesOf({ at, radiusMm: r }: Dots, { camera, width, height }: Looked): Path2D {
  const [left, top] = [-camera.xPx / camera.pxPerMm - r, -camera.yPx / camera.pxPerMm - r]
  const [right, low] = [left + width / camera.pxPerMm + 2 * r, top + height / camera.pxPerMm + 2 * r]
  const path = new Path2D()
  for (let i = 0; i < at.length; i += 2) {
    const [x, y] = [at[i]!, at[i + 1]!]
    if (x < left || x > right || y < top || y > low) continue
    path.moveTo(x + r, y)
    path.arc(x, y, r, 0, 2 * Math.PI)
  }
  return path
}

/** Contacts that are not marked: filled where they were looked at, hollow where nobody has looked. */
function drawDots(ctx: Context, d: Looked, dots: DisplayList['dots']): void {
  const small = pitchPxOf(d) < SQUARE_PX
  const path = (ink: Dot) => (small ? squaresOf(dots[ink]) : circlesOf(dots[ink], d))
  const colours = inkColours[d.theme]
  ctx.fillStyle = colours.healthy
  ctx.fill(path('healthy'))
  ctx.fillStyle = colours.sound
  ctx.fill(path('sound'))
  const { width: line, dash } = inkStyle.unseen
  ctx.strokeStyle = colours.unseen
  ctx.lineCap = 'round'
  ctx.lineWidth = Math.max(line * d.socket.pitchMm, 0.9 / d.camera.pxPerMm)
  ctx.setLineDash(dash && !small ? dash.map((v) => v * d.socket.pitchMm) : [])
  ctx.stroke(path('unseen'))
}

const corner = ([x, y]: readonly [number, number], half: number) => [x - half, y - half] as const

/** The needle: a ring round the contact and the shaft that leads to it from the open upper side. */
function drawNeedle(
  ctx: Context,
  [x, y]: readonly [number, number],
  r: number,
  colour: string,
  width: number,
): void {
  const right = x < width - 90
  ctx.strokeStyle = colour
  ctx.lineWidth = 2.6
  ctx.beginPath()
  ctx.arc(x, y, r, 0, 7)
  ctx.moveTo(x + (right ? r : -r) * 0.89, y - r * 0.45)
  ctx.lineTo(x + (right ? 1 : -1) * (r + 74), y - r * 0.45 - 38)
  ctx.stroke()
}

function drawNames(ctx: Context, d: Looked): void {
  const at = onScreen(d)
  const pitchPx = pitchPxOf(d)
  ctx.fillStyle = inkColours[d.theme].healthy
  ctx.font = '12px "Atkinson Hyperlegible Mono", monospace'
  ctx.textAlign = 'center'
  for (const c of d.socket.contacts) {
    const [x, y] = at(c)
    if (x < -20 || y < -20 || x > d.width + 20 || y > d.height + 20) continue
    ctx.fillText(c.name, x, y + pitchPx * 0.46)
  }
}

function drawClusters(ctx: Context, d: Looked, clusters: readonly Cluster[]): void {
  const at = onScreen(d)
  ctx.fillStyle = inkColours[d.theme].stroke
  ctx.font = '600 14px "Atkinson Hyperlegible Next Variable", sans-serif'
  for (const cluster of clusters) {
    if (cluster.names.length < 4) continue
    const [left, low, right, high] = cluster.box
    const corners = [at({ xMm: left, yMm: low }), at({ xMm: right, yMm: high })] as const
    const x = Math.max(corners[0][0], corners[1][0]) + 10
    const y = Math.max(corners[0][1], corners[1][1]) + 8
    ctx.textAlign = x > d.width - 80 ? 'right' : 'left'
    ctx.fillText(
      `${cluster.names.length}, ${cluster.shape}`,
      Math.min(x, d.width - 8),
      Math.min(y, d.height - 6),
    )
  }
}
