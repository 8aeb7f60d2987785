'use client'
import { useEffect } from 'react'

/** True while letters belong to a field or a sheet, so that single-key moves keep out of the way. */
export function isTyping(target: EventTarget | null): boolean {
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

/** A held Enter or space presses a button once, and sends a form once. */
export function useHeldOnce(): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return
      const { target } = event
      if (target instanceof HTMLTextAreaElement || (event.key === ' ' && isTyping(target))) return
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
      if (isTyping(target)) target.blur()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}

/** After a press of the mouse the keys belong to the surface again, not to the button that was pressed. */
export function letGo(event: { readonly detail: number; readonly currentTarget: EventTarget }): void {
  if (event.detail > 0 && event.currentTarget instanceof HTMLElement) event.currentTarget.blur()
}
