'use client'
import { useLayoutEffect, useRef } from 'react'
import { createKeybindingsHandler } from 'tinykeys'
import { create } from 'zustand'
import { persist } from 'zustand/middleware'
import { isTyping } from '@/ui/keys'
import { keyIds, keyScopes, keysOf, keyTable, moveOf, sayKey } from './key-table'
import type { GivenKeys, KeyId } from './key-table'

type Moves = Readonly<Partial<Record<KeyId, () => unknown>>>

interface OwnKeys {
  /** Single keys rest altogether, for those whose hands or whose software press what they do not mean. */
  readonly off: boolean
  /** Keys that were given to moves in place of the usual ones. */
  readonly keys: GivenKeys
}

/** The keys of this bench: a foot switch belongs to the bench it stands under, so they are kept in its browser. */
export const useOwnKeys = create<OwnKeys>()(
  persist((): OwnKeys => ({ off: false, keys: {} }), {
    name: 'needle-keys',
    skipHydration: true,
    merge: (kept, now) => {
      const { off, keys } = (kept ?? {}) as Partial<OwnKeys>
      const known = Object.entries(keys ?? {}).filter(
        ([id, key]) => id in keyTable && typeof key === 'string',
      )
      return { ...now, off: off === true, keys: Object.fromEntries(known) }
    },
  }),
)

/** A key as it is kept: what it gives, with `shift+` before letters and named keys; the Latin letter at its place where the layout has others. */
export function keyGiven(event: KeyboardEvent): string {
  const key = latin(event).toLowerCase()
  return event.shiftKey && (key.length > 1 || /[a-z]/.test(key)) ? `shift+${key}` : key
}

/** On a layout with other letters, a key gives the Latin letter that stands at its place. */
const latin = ({ key, code }: KeyboardEvent): string =>
  /^\p{L}$/u.test(key) && !/^[a-z]$/i.test(key) ? (/^Key([A-Z])$/.exec(code)?.[1]?.toLowerCase() ?? key) : key

/** What the library calls it: figures and signs may want shift or AltGr, as the layout has them. */
const binding = (key: string): string =>
  key
    .split(/(?<=\w) /)
    .map((press) => {
      if (press === ' ') return '[Shift]+Space'
      if (press.startsWith('shift+')) return `Shift+${press.slice(6)}`
      return press.length > 1 || /[a-z]/.test(press) ? press : `[Shift]+[Alt]+[Control]+${press}`
    })
    .join(' ')

interface Live {
  readonly ids: readonly KeyId[]
  readonly moves: { readonly current: Moves }
}
/** What counts now, as it came to be. */
const live = new Set<Live>()
let handler: EventListener | null = null
/** The handler is older than what counts now. */
let stale = true
/** First keys of pairs. */
let firsts: ReadonlySet<string> = new Set()
/** One of them was pressed, and its second is waited for until then, ms of the page. */
let pairUntil = 0
const PAIR_MS = 5000

const noModifier = '(?!Shift|Alt|Control|Meta|Caps).+'

/** Where one key is given to two live moves, the one of the narrower scope has it, then the later. */
function build(): EventListener {
  const own = useOwnKeys.getState()
  const scope = (id: KeyId) => keyScopes.indexOf(moveOf(id).scope)
  const all = [...live].flatMap((l) => l.ids.map((id) => ({ id, of: l }))).reverse()
  all.sort((a, b) => scope(b.id) - scope(a.id))
  const pairs = new Map<string, (event: KeyboardEvent) => void>()
  const singles = new Map<string, (event: KeyboardEvent) => void>()
  for (const { id, of } of all) {
    if (own.off && id !== 'keys') continue
    for (const bound of keysOf(id, own.keys).map(binding)) {
      const to = bound.includes(' ') ? pairs : singles
      if (to.has(bound)) continue
      to.set(bound, (event) => {
        event.preventDefault()
        if (to === pairs) pairEnds()
        if (!live.has(of)) return
        // A held key counts once, so that a held foot switch writes one line; only walking goes on.
        if (event.repeat && !moveOf(id).walks) return
        const move = () => live.has(of) && of.moves.current[id]?.()
        if (event.key === ' ') atRelease = move
        else move()
      })
    }
  }
  // After the first key of a pair only pairs count: what else is pressed then marks nothing.
  firsts = new Set([...pairs.keys()].map((pair) => pair.split(' ')[0]!))
  for (const first of firsts) pairs.set(`${first} [Shift]+[Alt]+[Control]+(${noModifier})`, pairEnds)
  return createKeybindingsHandler(Object.fromEntries([...pairs, ...singles]), {
    ignore: rests,
    timeout: PAIR_MS,
  })
}

/** Held, space moves the map under the pointer; its own move is made at the release, unless the map was moved. */
let atRelease: (() => void) | null = null
export function takeSpace(): void {
  atRelease = null
}
function onKeyUp(event: KeyboardEvent): void {
  if (event.key !== ' ') return
  const move = atRelease
  atRelease = null
  move?.()
}

/** Keys rest while typing, in sheets and in groups of choices; a control keeps its space and enter. */
function rests(event: KeyboardEvent): boolean {
  const { target } = event
  if (event.defaultPrevented || event.isComposing || isTyping(target)) return true
  if ((event.ctrlKey || event.metaKey || event.altKey) && !event.getModifierState('AltGraph')) return true
  const onControl = target instanceof HTMLElement && target.closest('button, a, summary, input') !== null
  return onControl && (event.key === ' ' || event.key === 'Enter')
}

function onKey(event: KeyboardEvent): void {
  const key = latin(event)
  // A press whose release was not seen, because the window was left, must not be answered at a later one.
  if (event.key === ' ' && !event.repeat) atRelease = null
  // What counts may change between the two keys of a pair; the second must not be taken for a move of its own.
  if (!handler || (stale && event.timeStamp >= pairUntil)) {
    handler = build()
    stale = false
  }
  // Held, the first key of a pair is not its second.
  if (event.repeat && firsts.has(binding(key.toLowerCase()))) return
  const begins = event.timeStamp >= pairUntil && firsts.has(binding(key.toLowerCase())) && !rests(event)
  // Some keyboards on a screen name no place; the library would pass such a press over.
  handler(key === event.key && event.code !== '' ? event : seenAs(event, key))
  if (begins) pairUntil = event.timeStamp + PAIR_MS
}

/** The same press with this key, and a place in any case. */
const seenAs = (event: KeyboardEvent, key: string): KeyboardEvent =>
  new Proxy(event, {
    get(of, name) {
      if (name === 'key') return key
      if (name === 'code') return of.code || 'Unidentified'
      const value: unknown = Reflect.get(of, name)
      return typeof value === 'function' ? value.bind(of) : value
    },
  })

const again = () => {
  stale = true
}
/** The library would wait for the other pairs of the same first key still. */
function pairEnds() {
  handler = null
  pairUntil = 0
}
useOwnKeys.subscribe(again)

/** Single-key moves, while the surface that has them is there and `active`: from the moment its buttons say so, not after it. */
export function useKeys(moves: Moves, active = true): void {
  const held = useRef(moves)
  useLayoutEffect(() => {
    held.current = moves
  })
  const ids = keyIds.filter((id) => moves[id]).join()
  useLayoutEffect(() => {
    if (!active || ids === '') return
    const mine: Live = { ids: ids.split(',') as KeyId[], moves: held }
    if (live.size === 0) {
      void useOwnKeys.persist.rehydrate()
      window.addEventListener('keydown', onKey)
      window.addEventListener('keyup', onKeyUp)
    }
    live.add(mine)
    again()
    return () => {
      live.delete(mine)
      again()
      if (live.size === 0) {
        window.removeEventListener('keydown', onKey)
        window.removeEventListener('keyup', onKeyUp)
      }
    }
  }, [active, ids])
}

/** The key of a move, as it stands on its button; nothing while the keys rest. */
export function useKeyHint(): (id: KeyId) => string | undefined {
  const own = useOwnKeys()
  return (id) => (own.off ? undefined : sayKey(keysOf(id, own.keys)[0]))
}
