'use client'
import type Konva from 'konva'
import { takeSpace } from '@/frame/use-keys'
import { useCallback, useEffect, useImperativeHandle, useMemo, useRef, useState } from 'react'
import type { Ref } from 'react'
import { Layer, Shape, Stage } from 'react-konva'
import type { Cluster } from '@/core/socket/damage/cluster'
import { displayList, fromView, toView } from '@/core/socket/map/display-list'
import { fieldOf } from '@/core/socket/model/socket'
import { contactAt, swathBetween } from '@/core/socket/model/walk'
import { drawContacts, drawDamage, drawHand, drawPaths, inkPaths } from './draw-field'
import { fitting, wheelFactor, zoomed } from '@/ui/camera'
import type { Camera } from '@/ui/camera'
import { useTheme } from '@/ui/use-theme'
import type { Surface } from './use-surface'

export interface FieldHandle {
  readonly fit: () => void
  readonly zoom: (factor: number) => void
}

interface Props {
  readonly surface: Surface
  readonly clusters: readonly Cluster[]
  readonly width: number
  readonly height: number
  readonly handle: Ref<FieldHandle>
}

type Drag =
  | { readonly kind: 'pan'; readonly x: number; readonly y: number; readonly from: Camera }
  | { readonly kind: 'lean'; readonly name: string }
  | { readonly kind: 'swath'; readonly start: readonly [number, number] }

/** Pixels a pitch must have before a drag on a contact leans it rather than moving the map. */
const LEAN_PX = 22
const MOST_PX_PER_MM = 260

/** The field in four layers, drawn from the display list: ground, contacts, damage and what is in the hand; pan, zoom, point, lean and paint. */
export default function FieldCanvas({ surface, clusters, width, height, handle }: Props) {
  const { socket, pass, view, cursor, swath } = surface
  const theme = useTheme()
  const list = useMemo(() => displayList(socket, pass, view), [socket, pass, view])
  const groundPaths = useMemo(() => inkPaths(list.ground), [list.ground])
  const markedPaths = useMemo(() => inkPaths(list.marked), [list.marked])
  const { dots } = list
  const [left, top, wide, high] = list.box
  const fitted = useMemo(
    () => fitting([left, top, wide, high], width, height),
    [width, height, left, top, wide, high],
  )
  const named = fieldOf(socket).named
  const at = named.get(cursor)
  const [cx, cy] = at ? toView(view, at.xMm, at.yMm) : [0, 0]
  // The camera stays where it was put; only when the needle has gone elsewhere since does the map follow it.
  const [put, setPut] = useState<{ camera: Camera; of: Camera; needle: string } | null>(null)
  const held = put?.of === fitted ? put : null
  const camera = held
    ? held.needle === cursor
      ? held.camera
      : following(held.camera, cx, cy, width, height)
    : fitted
  const setCamera = (next: Camera) => setPut({ camera: next, of: fitted, needle: cursor })
  const drag = useRef<Drag | null>(null)
  const space = useSpaceHeld()
  const [rubber, setRubber] = useState<
    readonly [readonly [number, number], readonly [number, number]] | null
  >(null)
  const zoomAt = (x: number, y: number, factor: number) =>
    setCamera(zoomed(camera, fitted, MOST_PX_PER_MM, x, y, factor))
  useImperativeHandle(handle, () => ({
    fit: () => setPut(null),
    zoom: (factor) => zoomAt(cx * camera.pxPerMm + camera.xPx, cy * camera.pxPerMm + camera.yPx, factor),
  }))

  const inView = (stage: Konva.Stage | null): readonly [number, number] | null => {
    const p = stage?.getPointerPosition()
    return p ? [(p.x - camera.xPx) / camera.pxPerMm, (p.y - camera.yPx) / camera.pxPerMm] : null
  }

  const by = useMemo(
    () => ({ socket, view, theme, camera, width, height }),
    [socket, view, theme, camera, width, height],
  )
  const ground = useCallback((ctx: Konva.Context) => drawPaths(ctx, by, groundPaths), [by, groundPaths])
  const contacts = useCallback((ctx: Konva.Context) => drawContacts(ctx, by, dots), [by, dots])
  const damage = useCallback(
    (ctx: Konva.Context) => drawDamage(ctx, by, markedPaths, clusters),
    [by, markedPaths, clusters],
  )
  const hand = useCallback(
    (ctx: Konva.Context) => drawHand(ctx, by, { cursor: at ?? null, swath, rubber }),
    [by, at, swath, rubber],
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
        const v = inView(e.target.getStage())
        if (!v) return
        if (space.current || e.evt.button === 1) {
          takeSpace()
          drag.current = { kind: 'pan', x: e.evt.clientX, y: e.evt.clientY, from: camera }
          return
        }
        if (e.evt.button !== 0) return
        // A press takes the nearest contact; a drag chooses a range, or leans the one that was taken before.
        const name = contactAt(socket, ...fromView(view, ...v), Infinity)
        const leans = name === cursor && socket.pitchMm * camera.pxPerMm >= LEAN_PX && !e.evt.shiftKey
        drag.current = leans ? { kind: 'lean', name } : { kind: 'swath', start: v }
        if (name && !e.evt.shiftKey) {
          surface.go(name)
          surface.setSwath([])
        }
      }}
      onPointerMove={(e) => {
        const d = drag.current
        const v = inView(e.target.getStage())
        if (!d || !v) return
        if (d.kind === 'pan')
          setCamera({
            ...d.from,
            xPx: d.from.xPx + e.evt.clientX - d.x,
            yPx: d.from.yPx + e.evt.clientY - d.y,
          })
        const moved = (by: number) =>
          d.kind === 'swath' && Math.hypot(v[0] - d.start[0], v[1] - d.start[1]) * camera.pxPerMm > by
        if (d.kind === 'swath' && (rubber || moved(6))) setRubber([d.start, v])
        if (d.kind === 'lean') {
          const c = named.get(d.name)!
          const [x, y] = fromView(view, ...v)
          const lean = [(x - c.xMm) / view.exaggeration, (y - c.yMm) / view.exaggeration].map(
            (mm) => Math.round(mm * 100) / 100,
          ) as [number, number]
          if (Math.hypot(...lean) * view.exaggeration > socket.pitchMm * 0.2) surface.setLean(d.name, lean)
        }
      }}
      onPointerUp={() => {
        if (drag.current?.kind === 'swath' && rubber) surface.setSwath(swathBetween(socket, view, ...rubber))
        setRubber(null)
        drag.current = null
      }}
      onPointerLeave={() => {
        setRubber(null)
        drag.current = null
      }}
    >
      <Drawing draw={ground} />
      <Drawing draw={contacts} />
      <Drawing draw={damage} />
      <Drawing draw={hand} />
    </Stage>
  )
}

/** Whether space is held: a drag then moves the map. */
function useSpaceHeld() {
  const held = useRef(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === ' ') held.current = event.type === 'keydown'
    }
    window.addEventListener('keydown', onKey)
    window.addEventListener('keyup', onKey)
    return () => {
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('keyup', onKey)
    }
  }, [])
  return held
}

/** One layer, drawn again by itself when what it draws is another. */
function Drawing({ draw }: { draw: (ctx: Konva.Context) => void }) {
  return (
    <Layer listening={false}>
      <Shape sceneFunc={draw} />
    </Layer>
  )
}

/** The camera moved just so far that a place of the view is in sight. */
function following(camera: Camera, xMm: number, yMm: number, width: number, height: number): Camera {
  const margin = 36
  const into = (px: number, size: number) => Math.min(Math.max(px, margin), size - margin) - px
  const dx = into(xMm * camera.pxPerMm + camera.xPx, width)
  const dy = into(yMm * camera.pxPerMm + camera.yPx, height)
  return dx === 0 && dy === 0 ? camera : { ...camera, xPx: camera.xPx + dx, yPx: camera.yPx + dy }
}
