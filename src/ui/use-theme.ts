'use client'
import { useSyncExternalStore } from 'react'

export type Theme = 'paper' | 'scope'

function subscribe(changed: () => void): () => void {
  window.addEventListener('themechange', changed)
  return () => window.removeEventListener('themechange', changed)
}

/** The theme in use, for what is drawn rather than styled. */
export const useTheme = (): Theme =>
  useSyncExternalStore(
    subscribe,
    () => (document.documentElement.dataset.theme === 'scope' ? 'scope' : 'paper'),
    () => 'paper',
  )
