'use client'
import type { StrokeResult } from '@/core/socket/bodies'

import { useState } from 'react'
import type { RefObject } from 'react'
import { damageKinds, isDamage, sayMark } from '@/core/socket/damage/mark'
import type { Step } from '@/core/socket/straighten/plan'
import type { Reckoning } from '@/core/socket/straighten/reckon'
import { fieldOf } from '@/core/socket/model/socket'
import { headingOf, keypad, neighboursByKey, nextUnseen, rowFrom } from '@/core/socket/model/walk'
import { useJob } from '@/job/JobProvider'
import { useKeys } from '@/frame/use-keys'
import type { FieldHandle } from './map/FieldCanvas'
import { asksNeighbour } from './map/use-surface'
import type { Surface } from './map/use-surface'
import type { Sweep } from './passes/use-sweep'

interface Wiring {
  readonly surface: Surface
  readonly reckoning: Reckoning | null
  readonly map: RefObject<FieldHandle | null>
  readonly step: Step | null
  readonly onTried: (result: StrokeResult) => void
  readonly onStrokes: (by: number) => void
  readonly onPhotos: () => void
  /** Opens what lies under the map, or puts it away. */
  readonly onDrawer: () => void
  readonly sweep: Sweep
  /** The photos have the keys. */
  readonly away: boolean
}

const ROW = 10

/** Reads a contact aloud where the browser can; silent where it cannot. */
function readAloud(text: string): void {
  if (!('speechSynthesis' in window)) return
  window.speechSynthesis.cancel()
  window.speechSynthesis.speak(new SpeechSynthesisUtterance(text))
}

/** The keys of the map: everything frequent is one press, so that a foot switch can give it. */
export function useSocketKeys({
  surface,
  reckoning,
  map,
  step,
  onTried,
  onStrokes,
  onPhotos,
  onDrawer,
  away,
  sweep,
}: Wiring): void {
  const append = useJob((j) => j.append)
  const { socket, cursor, marks, view, swath, pass } = surface
  const [leftOpen, setLeftOpen] = useState('')
  const asks = swath.length === 0 && asksNeighbour(marks[cursor]) && leftOpen !== cursor
  const looked = pass?.looked ?? {}
  const todo = reckoning?.planned.steps.map((s) => s.contact) ?? []
  const works = step !== null && step.strokes > 0

  const along = (by: number) => {
    if (todo.length === 0) return
    const at = todo.indexOf(cursor)
    surface.go(todo[(at === -1 ? (by > 0 ? 0 : todo.length - 1) : at + by + todo.length) % todo.length]!)
  }
  const look = (names: readonly string[], from: string) => {
    append('looked', { contacts: names })
    const seen = { ...looked, ...Object.fromEntries(names.map((n) => [n, true as const])) }
    const next = nextUnseen(socket, seen, marks, from)
    if (next) surface.go(next)
  }
  useKeys(
    {
      nextMarked: () => along(1),
      previousMarked: () => along(-1),
      sweep: sweep.toggle,
      drawer: onDrawer,
      lookedAt: () =>
        sweep.on ? sweep.proved() : look(swath.length > 0 ? swath : [cursor], swath.at(-1) ?? cursor),
      lookRow: () => {
        const row = rowFrom(socket, view, cursor, ROW)
        look(row, row.at(-1)!)
      },
      markSnapped: () => surface.setKind('snapped'),
      raise: () => surface.raise(0.05),
      lower: () => surface.raise(-0.05),
      unsure: surface.toggleUnsure,
      mirror: () => surface.setView({ mirrored: !view.mirrored }),
      turn: () => surface.setView({ quarterTurns: ((view.quarterTurns + 1) % 4) as 0 | 1 | 2 | 3 }),
      leans: () => surface.setView({ exaggeration: view.exaggeration >= 4 ? 1 : view.exaggeration * 2 }),
      whole: () => map.current?.fit(),
      nearer: () => map.current?.zoom(1.6),
      farther: () => map.current?.zoom(1 / 1.6),
      swath: surface.toggleSwath,
      noSwath: () => surface.setSwath([]),
      read: () => {
        const contact = fieldOf(socket).named.get(cursor)
        const mark = marks[cursor]
        const words = [
          cursor.split('').join(' '),
          contact?.group,
          mark && isDamage(mark) ? sayMark(mark) : 'intact',
          step?.say,
        ]
        readAloud(words.filter(Boolean).join('. '))
      },
      walkLeft: () => surface.walk('left'),
      walkRight: () => surface.walk('right'),
      walkUp: () => surface.walk('up'),
      walkDown: () => surface.walk('down'),
      leanLeft: () => surface.nudge(headingOf.left),
      leanRight: () => surface.nudge(headingOf.right),
      leanUp: () => surface.nudge(headingOf.up),
      leanDown: () => surface.nudge(headingOf.down),
      ...Object.fromEntries(damageKinds.map((kind) => [`mark.${kind}`, () => surface.setKind(kind)])),
    },
    !away,
  )
  useKeys(
    {
      // A sweep goes on by its key also where a stroke is in hand.
      ...(sweep.on ? {} : { there: () => onTried('there') }),
      short: () => onTried('still short'),
      past: () => onTried('past'),
      touching: () => onTried('touching'),
      snapped: () => onTried('snapped'),
      fewer: () => onStrokes(-1),
      more: () => onStrokes(1),
    },
    works && !away,
  )
  // The figures name a neighbour while it is asked for, as they lie on a keypad.
  const around = neighboursByKey(socket, view, cursor)
  useKeys(
    {
      ...Object.fromEntries(
        keypad.map((key) => [
          `touches.${key}`,
          () => around[key] !== null && surface.setTouches(around[key]),
        ]),
      ),
      touchesOpen: () => setLeftOpen(cursor),
    },
    asks && !away,
  )
  useKeys({ fromPhotos: onPhotos })
}
