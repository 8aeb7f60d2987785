'use client'
import { useSyncExternalStore } from 'react'

const QUERY = '(max-width: 899px)'

function subscribe(changed: () => void): () => void {
  const query = window.matchMedia(QUERY)
  query.addEventListener('change', changed)
  return () => query.removeEventListener('change', changed)
}

/** Whether this is a telephone rather than a bench. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => window.matchMedia(QUERY).matches,
    () => false,
  )
