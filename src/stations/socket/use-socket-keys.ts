'use client'
import type { StrokeResult } from '@/core/socket/slice'

import { useState } from 'react'
import type { RefObject } from 'react'
import { isDamage, sayMark } from '@/core/socket/damage/mark'
import type { Step } from '@/core/socket/straighten/plan'
import type { Reckoning } from '@/core/socket/straighten/reckon'
import { fieldOf } from '@/core/socket/model/socket'
import { keypad, neighboursByKey, nextUnseen, rowFrom } from '@/core/socket/model/walk'
import type { Direction } from '@/core/socket/model/walk'
import { useJob } from '@/job/JobProvider'
import { useKeys } from '@/ui/keys'
import type { KeyMap } from '@/ui/keys'
import { kindKeys } from './straighten/ContactPanel'
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
  readonly sweep: Sweep
  /** The photos have the keys. */
  readonly away: boolean
}

const directions: readonly Direction[] = ['left', 'right', 'up', 'down']
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
  away,
  sweep,
}: Wiring): void {
  const put = useJob((j) => j.put)
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
    put('looked', { contacts: names })
    const seen = { ...looked, ...Object.fromEntries(names.map((n) => [n, true as const])) }
    const next = nextUnseen(socket, seen, marks, from)
    if (next) surface.go(next)
  }
  const keys: Record<string, KeyMap[string]> = {
    '.': () => along(1),
    ',': () => along(-1),
    w: sweep.toggle,
    ' ': () =>
      sweep.on
        ? sweep.proved()
        : works
          ? onTried('there')
          : look(swath.length > 0 ? swath : [cursor], swath.at(-1) ?? cursor),
    n: () => {
      const row = rowFrom(socket, view, cursor, ROW)
      look(row, row.at(-1)!)
    },
    o: () => works && onTried('still short'),
    b: () => works && onTried('past'),
    j: () => works && onTried('touching'),
    x: () => (works ? onTried('snapped') : surface.setKind('snapped')),
    '[': () => onStrokes(-1),
    ']': () => onStrokes(1),
    '+': () => surface.raise(0.05),
    '=': () => surface.raise(0.05),
    '-': () => surface.raise(-0.05),
    u: surface.toggleUnsure,
    m: () => surface.setView({ mirrored: !view.mirrored }),
    r: () => surface.setView({ quarterTurns: ((view.quarterTurns + 1) % 4) as 0 | 1 | 2 | 3 }),
    k: () => surface.setView({ exaggeration: view.exaggeration >= 4 ? 1 : view.exaggeration * 2 }),
    f: () => map.current?.fit(),
    i: () => map.current?.zoom(1.6),
    d: () => map.current?.zoom(1 / 1.6),
    s: surface.toggleSwath,
    escape: () => surface.setSwath([]),
    v: () => {
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
  }
  for (const [key, kind] of kindKeys) keys[key] = () => surface.setKind(kind)
  if (asks) {
    // The figures name a neighbour while it is asked for, as they lie on a keypad.
    const around = neighboursByKey(socket, view, cursor)
    for (const key of keypad) {
      const name = around[key]
      keys[key] = () => name !== null && surface.setTouches(name)
    }
    keys['5'] = () => setLeftOpen(cursor)
  }
  for (const direction of directions) {
    keys[`arrow${direction}`] = () => surface.walk(direction)
    keys[`shift+arrow${direction}`] = () => surface.nudge(direction)
  }
  useKeys(keys, !away)
  useKeys({ y: onPhotos })
}
