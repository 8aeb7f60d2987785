'use client'
import { useMemo, useRef, useState } from 'react'
import type { PointerEvent } from 'react'
import { displayList } from '@/core/socket/map/display-list'
import { BEAM_RUN_MM } from '@/core/socket/damage/short'
import type { Contact, Socket } from '@/core/socket/model/socket'
import { FieldPaths } from '@/ui/FieldPaths'
import { useTheme } from '@/ui/use-theme'

type Corner = readonly [x: number, y: number]

const n = (v: number) => Math.round(v * 1000) / 1000
const circles = (contacts: readonly Contact[], r: number) =>
  contacts
    .map((c) => `M${n(c.xMm - r)} ${n(-c.yMm)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`)
    .join('')

/** The field with its beams and gaps; a click chooses a contact, a drag a rectangle, shift adds to what is chosen. */
export function EditPicture({
  socket,
  gaps,
  chosen,
  onChoose,
}: {
  socket: Socket
  gaps: readonly Contact[]
  chosen: ReadonlySet<string>
  onChoose: (names: readonly string[], more: boolean) => void
}) {
  const svg = useRef<SVGSVGElement>(null)
  const theme = useTheme()
  const [from, setFrom] = useState<Corner | null>(null)
  const [to, setTo] = useState<Corner | null>(null)
  const list = useMemo(() => displayList(socket, null), [socket])
  const beams = useMemo(() => {
    const run = Math.min(BEAM_RUN_MM, 0.42 * socket.pitchMm)
    return socket.kind === 'pin-grid'
      ? ''
      : socket.contacts
          .map((c) => {
            const angle = (c.beamDeg * Math.PI) / 180
            return `M${n(c.xMm)} ${n(-c.yMm)}l${n(-run * Math.cos(angle))} ${n(run * Math.sin(angle))}`
          })
          .join('')
  }, [socket])
  const p = socket.pitchMm
  const all = useMemo(() => [...socket.contacts, ...gaps], [socket, gaps])
  const rings = useMemo(
    () =>
      circles(
        all.filter((c) => chosen.has(c.name)),
        n(0.34 * p),
      ),
    [all, chosen, p],
  )
  const crosses = useMemo(() => {
    const h = n(0.16 * p)
    return gaps
      .map(
        (g) =>
          `M${n(g.xMm - h)} ${n(-g.yMm - h)}l${2 * h} ${2 * h}M${n(g.xMm + h)} ${n(-g.yMm - h)}l${-2 * h} ${2 * h}`,
      )
      .join('')
  }, [gaps, p])
  const place = (event: PointerEvent): Corner => {
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(
      svg.current!.getScreenCTM()!.inverse(),
    )
    return [at.x, -at.y]
  }
  const choose = (more: boolean) => {
    if (!from || !to) return
    const within = (c: Contact) =>
      c.xMm >= Math.min(from[0], to[0]) &&
      c.xMm <= Math.max(from[0], to[0]) &&
      c.yMm >= Math.min(from[1], to[1]) &&
      c.yMm <= Math.max(from[1], to[1])
    const click = Math.hypot(to[0] - from[0], to[1] - from[1]) < 0.3 * p
    const far = (c: Contact) => Math.hypot(c.xMm - to[0], c.yMm - to[1])
    const nearest = all.reduce((best, c) => (far(c) < far(best) ? c : best))
    const names = click
      ? far(nearest) < 0.7 * p
        ? [nearest.name]
        : []
      : all.filter(within).map((c) => c.name)
    onChoose(names, more)
  }
  const frame =
    from && to
      ? {
          x: Math.min(from[0], to[0]),
          y: -Math.max(from[1], to[1]),
          width: Math.abs(to[0] - from[0]),
          height: Math.abs(to[1] - from[1]),
        }
      : null
  return (
    <svg
      ref={svg}
      viewBox={list.box.join(' ')}
      className="max-h-[calc(100vh-15rem)] w-full touch-none border border-line select-none"
      role="img"
      aria-label={`${socket.name}: ${socket.contacts.length} contacts, ${gaps.length} taken out, ${chosen.size} chosen`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        setFrom(place(event))
        setTo(place(event))
      }}
      onPointerMove={(event) => from && setTo(place(event))}
      onPointerUp={(event) => {
        choose(event.shiftKey)
        setFrom(null)
        setTo(null)
      }}
      onPointerCancel={() => {
        setFrom(null)
        setTo(null)
      }}
    >
      <FieldPaths paths={list.paths} pitchMm={p} theme={theme} />
      <path d={beams} fill="none" stroke="var(--slate)" strokeWidth={0.07 * p} strokeLinecap="round" />
      <path d={crosses} fill="none" stroke="var(--soft)" strokeWidth={0.06 * p} />
      <path d={rings} fill="none" stroke="var(--brass)" strokeWidth={0.12 * p} />
      {frame && (
        <rect
          {...frame}
          fill="none"
          stroke="var(--brass)"
          strokeWidth={0.1 * p}
          strokeDasharray={`${0.3 * p}`}
        />
      )}
    </svg>
  )
}
