'use client'
import { useSyncExternalStore } from 'react'

/** A telephone by its width, or by its width and a finger; paper is none, however narrow. */
const PHONE = 'screen and (max-width: 639px), screen and (pointer: coarse) and (max-width: 899px)'
const WIDE = '(min-width: 1180px)'

function useQuery(query: string, onServer: boolean): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query)
      list.addEventListener('change', changed)
      return () => list.removeEventListener('change', changed)
    },
    () => window.matchMedia(query).matches,
    () => onServer,
  )
}

/** Whether this is a telephone rather than a bench. */
export const useNarrow = (): boolean => useQuery(PHONE, false)

/** Whether there is room for the tape beside the station. */
export const useWide = (): boolean => useQuery(WIDE, true)
