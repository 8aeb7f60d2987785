'use client'
import type Konva from 'konva'
import { useCallback, useImperativeHandle, useMemo, useRef, useState } from 'react'
import type { Ref } from 'react'
import { Layer, Shape, Stage } from 'react-konva'
import { fromView, plainView, toView } from '@/core/socket/map/display-list'
import type { View } from '@/core/socket/map/display-list'
import { partAt } from '@/core/parts/board-map/drawing'
import type { MapDrawing } from '@/core/parts/board-map/drawing'
import type { BoardSide } from '@/core/parts/board-map/board-map'
import { fitting, wheelFactor, zoomed } from '@/ui/camera'
import type { Camera } from '@/ui/camera'
import { useTheme } from '@/ui/use-theme'
import { boxOf, drawBoard, drawInHand, netPathsOf, pathsOf } from './draw-board'
import type { Box, Marked } from './draw-board'

export interface BoardHandle {
  readonly whole: () => void
  readonly zoom: (factor: number) => void
}

const MOST_PX_PER_MM = 160
/** A part that is chosen elsewhere is shown at least so large, and never wider than this share of the view. */
const NEAR_PX_PER_MM = 24
const WIDEST = 0.4
const MARGIN_MM = 3
/** A press takes a part that is so near, px. */
const NEAR_PX = 8

/** A side of the board: its places, the parts with their names, a net and a part in hand, and what was found. */
export default function BoardCanvas({
  drawing,
  side,
  turns,
  mirrored,
  part,
  net,
  marked,
  width,
  height,
  handle,
  onPart,
}: {
  drawing: MapDrawing
  side: BoardSide
  turns: View['quarterTurns']
  mirrored: boolean
  part: string | null
  net: string | null
  marked: readonly Marked[]
  width: number
  height: number
  handle: Ref<BoardHandle>
  onPart: (ref: string | null) => void
}) {
  const theme = useTheme()
  const view = useMemo(
    (): View => ({ ...plainView, quarterTurns: turns, mirrored: (side === 'bottom') !== mirrored }),
    [turns, side, mirrored],
  )
  const fitted = useMemo(() => whole(drawing.box, view, width, height), [drawing.box, view, width, height])
  const box = useMemo(() => {
    const p = part === null ? -1 : drawing.parts.indexOf(part)
    return p < 0 ? null : boxOf(drawing, p)
  }, [drawing, part])
  const isBehind = part !== null && drawing.partSide[drawing.parts.indexOf(part)] !== side
  // The camera stays where it was put; a part that is chosen elsewhere is brought into sight, near enough to be told.
  const [put, setPut] = useState<{ camera: Camera; of: Camera; part: string | null } | null>(null)
  const held = put?.of === fitted ? put : null
  const from = held?.camera ?? fitted
  const camera = held?.part === part || !box ? from : seeing(from, box, view, width, height)
  const setCamera = (next: Camera) => setPut({ camera: next, of: fitted, part })
  const zoomAt = (x: number, y: number, factor: number) =>
    setCamera(zoomed(camera, fitted, MOST_PX_PER_MM, x, y, factor))
  useImperativeHandle(handle, () => ({
    whole: () => setCamera(fitted),
    zoom: (factor) => zoomAt(width / 2, height / 2, factor),
  }))
  const drag = useRef<{ x: number; y: number; from: Camera; moved: boolean } | null>(null)

  const paths = useMemo(() => pathsOf(drawing, side), [drawing, side])
  const netPaths = useMemo(() => netPathsOf(drawing, net, side), [drawing, net, side])
  const by = useMemo(
    () => ({ drawing, side, view, camera, width, height, theme }),
    [drawing, side, view, camera, width, height, theme],
  )
  const board = useCallback((ctx: Konva.Context) => drawBoard(ctx, by, paths), [by, paths])
  const hand = useCallback(
    (ctx: Konva.Context) => drawInHand(ctx, by, { net: netPaths, marked, part: box, isBehind }),
    [by, netPaths, marked, box, isBehind],
  )

  return (
    <Stage
      width={width}
      height={height}
      onWheel={(e) => {
        e.evt.preventDefault()
        const p = e.target.getStage()?.getPointerPosition()
        if (p) zoomAt(p.x, p.y, wheelFactor(e.evt.deltaY))
      }}
      onPointerDown={(e) => {
        drag.current = { x: e.evt.clientX, y: e.evt.clientY, from: camera, moved: false }
      }}
      onPointerMove={(e) => {
        const d = drag.current
        if (!d) return
        const [dx, dy] = [e.evt.clientX - d.x, e.evt.clientY - d.y]
        if (!d.moved && Math.hypot(dx, dy) < 4) return
        d.moved = true
        setCamera({ ...d.from, xPx: d.from.xPx + dx, yPx: d.from.yPx + dy })
      }}
      onPointerUp={(e) => {
        const d = drag.current
        drag.current = null
        const p = e.target.getStage()?.getPointerPosition()
        if (!d || d.moved || !p) return
        const [vx, vy] = [(p.x - camera.xPx) / camera.pxPerMm, (p.y - camera.yPx) / camera.pxPerMm]
        const ref = partAt(drawing, ...fromView(view, vx, vy), side, NEAR_PX / camera.pxPerMm)
        // What is pressed is in sight already: the map does not move under the hand.
        setPut({ camera, of: fitted, part: ref })
        onPart(ref)
      }}
      onPointerLeave={() => {
        drag.current = null
      }}
    >
      <Layer listening={false}>
        <Shape sceneFunc={board} />
      </Layer>
      <Layer listening={false}>
        <Shape sceneFunc={hand} />
      </Layer>
    </Stage>
  )
}

/** The camera that has all of the board in sight. */
function whole([left, low, right, high]: Box, view: View, width: number, height: number): Camera {
  const [a, b] = [toView(view, left, low), toView(view, right, high)]
  const [x, y] = [Math.min(a[0], b[0]) - MARGIN_MM, Math.min(a[1], b[1]) - MARGIN_MM]
  const [w, h] = [Math.abs(a[0] - b[0]) + 2 * MARGIN_MM, Math.abs(a[1] - b[1]) + 2 * MARGIN_MM]
  return fitting([x, y, w, h], width, height)
}

/** The camera moved, and brought nearer where it is too far, to show a part. */
function seeing(
  from: Camera,
  [left, low, right, high]: Box,
  view: View,
  width: number,
  height: number,
): Camera {
  const [x, y] = toView(view, (left + right) / 2, (low + high) / 2)
  const near = Math.min(NEAR_PX_PER_MM, (WIDEST * width) / Math.max(right - left, high - low))
  const pxPerMm = Math.min(MOST_PX_PER_MM, Math.max(from.pxPerMm, near))
  return { pxPerMm, xPx: width / 2 - x * pxPerMm, yPx: height / 2 - y * pxPerMm }
}
