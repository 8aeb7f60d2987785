'use client'
import { useEffect } from 'react'

/** Asks the surface in sight to go to one of its parts: a contact, a rail, the ledger. */
export function pointAt(part: string): void {
  window.dispatchEvent(new CustomEvent('needle-point', { detail: part }))
}

/** Hears where a surface should go, from a link that led here or from one pressed while it is in sight. */
export function usePointed(go: (part: string) => void): void {
  useEffect(() => {
    if (location.hash.length > 1) go(decodeURIComponent(location.hash.slice(1)))
    const onPoint = (event: Event) => go(String((event as CustomEvent).detail))
    window.addEventListener('needle-point', onPoint)
    return () => window.removeEventListener('needle-point', onPoint)
  }, [go])
}
