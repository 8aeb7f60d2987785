'use client'
import { useEffect, useRef } from 'react'

export type KeyMap = Readonly<Record<string, (event: KeyboardEvent) => void>>

/** Moves that write nothing may repeat while their key is held; every other key counts once a press. */
const mayRepeat = /^(arrow(left|right|up|down)|[.,])$/

/** True while letters belong to a field or a sheet, so that single-key moves keep out of the way. */
function typing(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (
    target.isContentEditable ||
    target.closest('[role="dialog"], [role="radiogroup"], [role="listbox"], [role="menu"]')
  )
    return true
  if (target instanceof HTMLInputElement)
    return !['checkbox', 'radio', 'button', 'submit', 'file'].includes(target.type)
  return target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement
}

const named = (event: KeyboardEvent) =>
  event.shiftKey && (event.key.length > 1 || /[a-z]/i.test(event.key))
    ? `shift+${event.key.toLowerCase()}`
    : event.key.toLowerCase()

/**
 * Single-key moves of a surface: `{ 'z': undo, 'shift+arrowleft': …, 'g 3': … }`.
 * After `g` only pairs count, so that `g 2` goes to a station and does not also mark a contact.
 * A held key counts once, so that a held foot switch writes one line; only walking goes on.
 * Off while typing, and with ctrl, alt or the system key held; a button keeps its space and enter.
 */
export function useKeys(keys: KeyMap, active = true): void {
  const held = useRef(keys)
  useEffect(() => {
    held.current = keys
  })
  useEffect(() => {
    if (!active) return
    let first = ''
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || typing(event.target))
        return
      const onControl =
        event.target instanceof HTMLElement && event.target.closest('button, a, summary, input') !== null
      if (onControl && (event.key === ' ' || event.key === 'Enter')) return
      const key = named(event)
      if (event.repeat && !(first === '' && mayRepeat.test(key))) return event.preventDefault()
      const action = held.current[first ? `${first} ${key}` : key]
      first = first === '' && key === 'g' ? 'g' : ''
      if (!action) return
      event.preventDefault()
      action(event)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [active])
}

/** A held Enter or space presses a button once, and sends a form once. */
export function useHeldOnce(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return
      const { target } = event
      if (target instanceof HTMLTextAreaElement || (event.key === ' ' && typing(target))) return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey, true)
    return () => window.removeEventListener('keydown', onKey, true)
  }, [])
}

/** Escape leaves a field, so that the single keys count again. */
export function useEscapeLeaves(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event
      if (event.key !== 'Escape' || !(target instanceof HTMLElement) || target.closest('[role="dialog"]'))
        return
      if (typing(target)) target.blur()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}

/** After a press of the mouse the keys belong to the surface again, not to the button that was pressed. */
export function letGo(event: { readonly detail: number; readonly currentTarget: EventTarget }): void {
  if (event.detail > 0 && event.currentTarget instanceof HTMLElement) event.currentTarget.blur()
}
