import { useState } from 'react'
import { typedHere } from '@/job/typed-here'

/** What else can be done: its price, how often it works out, its days. */
export interface TypedOther {
  readonly price: string
  readonly chance: string
  readonly days: string
}
export type Instead = 'board' | 'out' | 'maker'

/** What was typed of what else can be done with a job; what nobody typed is left out. */
export type WorthTyped = Partial<Record<Instead, TypedOther> & { readonly donor: string }>

const keyOf = (tag: string) => `worth it ${tag}`

/** What was typed of a job stays in this browser: it is asked about more than once. */
export function useWorthTyped(tag: string): [WorthTyped, (more: WorthTyped) => void] {
  const [typed, setTyped] = useState((): WorthTyped => typedHere<WorthTyped>(keyOf(tag)))
  return [
    typed,
    (more) => {
      const all = { ...typed, ...more }
      setTyped(all)
      localStorage.setItem(keyOf(tag), JSON.stringify(all))
    },
  ]
}
