'use client'
import { useMemo, useState, useSyncExternalStore } from 'react'
import { editedField, editField } from '@/core/socket/model/edit-field'
import type { FieldEdit } from '@/core/socket/model/edit-field'
import type { Socket } from '@/core/socket/model/socket'

interface Kept {
  readonly edits: readonly FieldEdit[]
  readonly undone: readonly FieldEdit[]
}
const nothing: Kept = { edits: [], undone: [] }
const keyOf = (socket: Socket) => `needle field ${socket.id}`

// What this page has; where the browser keeps nothing, it is all there is.
const here = new Map<string, string>()
const listeners = new Set<() => void>()
const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

function read(key: string): string {
  try {
    return here.get(key) ?? localStorage.getItem(key) ?? ''
  } catch {
    return ''
  }
}

function write(key: string, text: string): void {
  here.set(key, text)
  try {
    if (text) localStorage.setItem(key, text)
    else localStorage.removeItem(key)
  } catch {
    // It stays while the page does.
  }
  for (const listener of listeners) listener()
}

/** Changes to a field, one after another, undone and done again; kept in this browser until they are in the library. */
export function useFieldEdits(socket: Socket) {
  const key = keyOf(socket)
  const text = useSyncExternalStore(
    subscribe,
    () => read(key),
    () => '',
  )
  const kept = useMemo(() => (text ? (JSON.parse(text) as Kept) : nothing), [text])
  const [fault, setFault] = useState('')
  const keep = (next: Kept) => {
    write(key, next === nothing ? '' : JSON.stringify(next))
    setFault('')
  }
  const field = useMemo(() => editedField(socket, kept.edits), [socket, kept.edits])
  const now = useMemo(
    (): Socket => ({ ...socket, contacts: field.contacts, pitchMm: field.pitchMm }),
    [socket, field],
  )
  return {
    now,
    gaps: field.gaps,
    edits: kept.edits,
    mayRedo: kept.undone.length > 0,
    fault,
    /** Does a change, or says why it cannot be done. */
    edit: (change: FieldEdit): boolean => {
      const next = editField(field, change)
      if (typeof next === 'string') {
        setFault(next)
        return false
      }
      keep({ edits: [...kept.edits, change], undone: [] })
      return true
    },
    undo: () => {
      const last = kept.edits.at(-1)
      if (last) keep({ edits: kept.edits.slice(0, -1), undone: [...kept.undone, last] })
    },
    redo: () => {
      const last = kept.undone.at(-1)
      if (last) keep({ edits: [...kept.edits, last], undone: kept.undone.slice(0, -1) })
    },
    forget: () => keep(nothing),
  }
}
export type FieldEdits = ReturnType<typeof useFieldEdits>
