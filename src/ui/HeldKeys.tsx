'use client'
import { useHeldOnce } from './keys'

/** On every page: a key that is held presses once. */
export function HeldKeys() {
  useHeldOnce()
  return null
}
