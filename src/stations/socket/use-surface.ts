'use client'
import { useCallback, useMemo, useRef, useState } from 'react'
import { currentPass } from '@/core/job/state'
import { plainView, toView } from '@/core/socket/display-list'
import type { View } from '@/core/socket/display-list'
import type { DamageKind, Mark, Marks } from '@/core/socket/mark'
import type { Pass } from '@/core/socket/pass'
import type { Socket } from '@/core/socket/socket'
import { fieldOf } from '@/core/socket/socket'
import { neighboursOf, onSocket, stepFrom, swathBetween } from '@/core/socket/walk'
import type { Direction } from '@/core/socket/walk'
import { useJob } from '@/stations/job/JobProvider'

const noMarks: Marks = {}
const LEAN_STEP_MM = 0.05
/** A lean set by its key alone starts here, to the right as it is seen; arrows then correct it. */
const FIRST_LEAN_MM = 0.2
const round = (mm: number) => Math.round(mm * 1000) / 1000

export interface Surface {
  readonly socket: Socket
  readonly pass: Pass | null
  readonly marks: Marks
  readonly cursor: string
  readonly view: View
  /** A swath being painted: what a mark is put on instead of the cursor alone. */
  readonly swath: readonly string[]
  readonly go: (name: string) => void
  readonly walk: (direction: Direction) => void
  readonly setView: (view: Partial<View>) => void
  readonly setSwath: (names: readonly string[]) => void
  /** Begins a swath at the cursor that grows as it walks, or ends it. */
  readonly toggleSwath: () => void
  readonly setKind: (kind: DamageKind) => void
  readonly setLean: (name: string, leanMm: readonly [number, number]) => void
  readonly nudge: (direction: Direction) => void
  readonly raise: (mm: number) => void
  readonly toggleUnsure: () => void
}

/** Cursor, view and marking of the map. Presses that follow one another on the same contacts make one line of tape. */
export function useSurface(socket: Socket): Surface {
  const pass = useJob((j) => currentPass(j.state))
  const jot = useJob((j) => j.jot)
  const amend = useJob((j) => j.amend)
  const [cursor, setCursor] = useState(() => firstCursor(socket, pass))
  const [view, setWholeView] = useState<View>(plainView)
  const [painted, setPainted] = useState<readonly string[]>([])
  const [anchor, setAnchor] = useState<string | null>(null)
  const last = useRef<{ id: string; contacts: string } | null>(null)
  const marks = pass?.marks ?? noMarks

  const mark = useCallback(
    (contacts: readonly string[], next: Mark) => {
      const key = contacts.join(' ')
      const body = { contacts, mark: next }
      if (last.current?.contacts === key && amend(last.current.id, body)) return
      last.current = { id: jot('mark', body), contacts: key }
    },
    [jot, amend],
  )

  const swath = useMemo(() => {
    if (anchor === null) return painted
    const { named } = fieldOf(socket)
    const [a, b] = [named.get(anchor), named.get(cursor)]
    if (!a || !b) return painted
    return swathBetween(socket, view, toView(view, a.xMm, a.yMm), toView(view, b.xMm, b.yMm))
  }, [socket, view, anchor, cursor, painted])

  return useMemo(() => {
    const setSwath = (names: readonly string[]) => {
      setAnchor(null)
      setPainted(names)
    }
    const targets = swath.length > 0 ? swath : [cursor]
    // A swath is marked from the contact under the needle if that is part of it, else from its first.
    const leader = swath.length === 0 || swath.includes(cursor) ? cursor : swath[0]!
    const here: Mark = marks[leader] ?? { kind: 'intact' }
    return {
      socket,
      pass,
      marks,
      cursor,
      view,
      swath,
      go: setCursor,
      walk: (direction) => setCursor((name) => stepFrom(socket, view, name, direction)),
      setView: (change) => setWholeView((v) => ({ ...v, ...change })),
      setSwath,
      toggleSwath: () => {
        setPainted([])
        setAnchor(anchor === null && swath.length === 0 ? cursor : null)
      },
      setKind: (kind) => mark(targets, withKind(socket, view, leader, here, kind)),
      setLean: (name, leanMm) => mark([name], leaning(marks[name] ?? { kind: 'intact' }, leanMm)),
      nudge: (direction) => {
        const [ux, uy] = onSocket(view, direction)
        const [x, y] = here.leanMm ?? [0, 0]
        mark(targets, leaning(here, [round(x + ux * LEAN_STEP_MM), round(y + uy * LEAN_STEP_MM)]))
      },
      raise: (mm) => mark(targets, raised(here, round((here.heightMm ?? 0) + mm))),
      toggleUnsure: () => {
        if (here.kind !== 'intact') mark(targets, { ...here, unsure: here.unsure ? undefined : true })
      },
    }
  }, [socket, pass, marks, cursor, view, swath, anchor, mark])
}

function firstCursor(socket: Socket, pass: Pass | null): string {
  const marked = socket.contacts.find((c) => pass?.marks[c.name])
  return marked?.name ?? socket.contacts[Math.floor(socket.contacts.length / 2)]?.name ?? ''
}

/** A kind set by hand keeps the measures that still mean something; pressed again, what touches goes to the next neighbour. */
function withKind(socket: Socket, view: View, name: string, before: Mark, kind: DamageKind): Mark {
  if (kind === 'intact' || kind === 'snapped' || kind === 'tip gone') return { kind }
  const { leanMm, heightMm = 0 } = before
  const height =
    (kind === 'low' && heightMm > 0) || (kind === 'high' && heightMm < 0) || kind === 'lean' ? 0 : heightMm
  const [ux, uy] = onSocket(view, 'right')
  const keep = {
    leanMm:
      kind === 'lean'
        ? (leanMm ?? ([round(ux * FIRST_LEAN_MM), round(uy * FIRST_LEAN_MM)] as const))
        : leanMm,
    heightMm: height === 0 ? undefined : height,
  }
  if (kind !== 'touching' && kind !== 'folded') return { kind, ...keep }
  const around = neighboursOf(socket, name)
  const at = before.kind === kind && before.touches ? around.indexOf(before.touches) + 1 : 0
  return { kind, ...keep, touches: around[at % around.length] }
}

function leaning(before: Mark, leanMm: readonly [number, number]): Mark {
  const kind =
    before.kind === 'intact' || before.kind === 'snapped' || before.kind === 'tip gone' ? 'lean' : before.kind
  const none = Math.hypot(...leanMm) < 0.005
  if (none && kind === 'lean') return { kind: 'intact' }
  return { ...before, kind, leanMm: none ? undefined : leanMm }
}

function raised(before: Mark, heightMm: number): Mark {
  const plain = before.kind === 'intact' || before.kind === 'low' || before.kind === 'high'
  if (heightMm === 0 && plain && !before.leanMm) return { kind: 'intact' }
  if (heightMm === 0 && plain) return { ...before, kind: 'lean', heightMm: undefined }
  return {
    ...before,
    kind: plain ? (heightMm < 0 ? 'low' : 'high') : before.kind,
    heightMm: heightMm === 0 ? undefined : heightMm,
  }
}
