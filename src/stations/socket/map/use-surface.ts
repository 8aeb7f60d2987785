'use client'
import { currentPass } from '@/core/socket/slice'

import { useCallback, useMemo, useRef, useState } from 'react'
import { plainView, toView } from '@/core/socket/map/display-list'
import type { View } from '@/core/socket/map/display-list'
import { usualLeanMm } from '@/core/socket/damage/mark'
import type { DamageKind, Mark, Marks } from '@/core/socket/damage/mark'
import { doubted, leaning, raised, withKind } from '@/core/socket/damage/marking'
import type { Pass } from '@/core/socket/damage/pass'
import type { Socket } from '@/core/socket/model/socket'
import { fieldOf } from '@/core/socket/model/socket'
import { onSocket, stepFrom, swathBetween } from '@/core/socket/model/walk'
import type { Direction, Heading } from '@/core/socket/model/walk'
import { useJob } from '@/job/JobProvider'

const noMarks: Marks = {}
const LEAN_STEP_MM = 0.05

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
  /** Leans it a step further to one of eight directions of the view. */
  readonly nudge: (heading: Heading) => void
  /** Makes the lean longer or shorter, the way it leans. */
  readonly leanBy: (mm: number) => void
  readonly raise: (mm: number) => void
  readonly toggleUnsure: () => void
  /** Names the neighbour the contact touches or lies over. */
  readonly setTouches: (neighbour: string) => void
}

/** It touches or lies over a neighbour, and nobody has said which. */
export const asksNeighbour = (mark: Mark | undefined): boolean =>
  (mark?.kind === 'touching' || mark?.kind === 'folded') && mark.touches === undefined

/** Cursor, view and marking of the map. Presses that follow one another on the same contacts make one line of tape. */
export function useSurface(socket: Socket): Surface {
  const pass = useJob((j) => currentPass(j.state.socket))
  const appendAmendable = useJob((j) => j.appendAmendable)
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
      last.current = { id: appendAmendable('mark', body), contacts: key }
    },
    [appendAmendable, amend],
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
      nudge: (heading) => {
        const [ux, uy] = onSocket(view, heading)
        const [x, y] = here.leanMm ?? [0, 0]
        mark(targets, leaning(here, [x + ux * LEAN_STEP_MM, y + uy * LEAN_STEP_MM]))
      },
      leanBy: (mm) => {
        const [x, y] = usualLeanMm(here)
        const now = Math.hypot(x, y)
        if (now === 0) return
        const to = Math.max(0, now + mm) / now
        mark(targets, leaning(here, [x * to, y * to]))
      },
      setTouches: (neighbour) =>
        mark([cursor], { ...(marks[cursor] ?? { kind: 'touching' }), touches: neighbour }),
      raise: (mm) => mark(targets, raised(here, (here.heightMm ?? 0) + mm)),
      toggleUnsure: () => {
        if (here.kind !== 'intact') mark(targets, doubted(here))
      },
    }
  }, [socket, pass, marks, cursor, view, swath, anchor, mark])
}

function firstCursor(socket: Socket, pass: Pass | null): string {
  const marked = socket.contacts.find((c) => pass?.marks[c.name])
  return marked?.name ?? socket.contacts[Math.floor(socket.contacts.length / 2)]?.name ?? ''
}
