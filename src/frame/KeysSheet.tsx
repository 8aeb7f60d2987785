'use client'
import { useState } from 'react'
import type { KeyboardEvent } from 'react'
import type { Station } from '@/core/board/station'
import { Button } from '@/ui/Button'
import { Sheet } from '@/ui/Sheet'
import { keyFault, keyIds, keyScopes, keysOf, moveOf, outsideJobs, sayKey } from './key-table'
import type { KeyId } from './key-table'
import { keyGiven, useOwnKeys } from './use-keys'

type Scope = (typeof keyScopes)[number]

/** What counts at each place, in the order in which one looks for it. */
const scopesAt: Readonly<Partial<Record<Station, readonly Scope[]>>> = {
  triage: ['triage'],
  socket: ['socket', 'the strokes in hand', 'which neighbour', 'photos'],
  proof: ['proof'],
}

/** The keys of a place and what each does; any of them can be given another, and all of them can rest. */
export function KeysSheet({
  open,
  station,
  onClose,
}: {
  open: boolean
  station: Station | null
  onClose: () => void
}) {
  const own = useOwnKeys()
  const [changing, setChanging] = useState<KeyId | null>(null)
  const [fault, setFault] = useState('')
  const [all, setAll] = useState(false)
  const here: readonly Scope[] = all
    ? keyScopes
    : station
      ? [...(scopesAt[station] ?? []), 'everywhere in a job']
      : outsideJobs
  function take(event: KeyboardEvent, id: KeyId) {
    if (['Shift', 'Control', 'Alt', 'Meta', 'AltGraph', 'CapsLock'].includes(event.key)) return
    event.preventDefault()
    event.stopPropagation()
    if (event.key === 'Escape') return setChanging(null)
    const key = keyGiven(event.nativeEvent)
    const clash = keyFault(id, key, own.keys)
    setFault(clash ?? '')
    if (clash) return
    const { [id]: _, ...others } = own.keys
    useOwnKeys.setState({ keys: key === moveOf(id).key ? others : { ...others, [id]: key } })
    setChanging(null)
  }
  return (
    <Sheet
      open={open}
      title="Keys"
      onClose={() => {
        setChanging(null)
        onClose()
      }}
      wide
    >
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={!own.off}
          onChange={(event) => useOwnKeys.setState({ off: !event.target.checked })}
        />
        <span>Single keys count; while you type in a field they rest</span>
      </label>
      <p className="mt-1 text-[0.92rem] text-soft">
        Choose a key below to give its move another one: a foot switch is a key too. They are kept on this
        bench.
      </p>
      <p role="status" className="sticky top-0 min-h-[1.5em] bg-sheet font-semibold text-ember">
        {fault}
      </p>
      {here.map((scope) => (
        <section key={scope} className="mt-2">
          <h3 className="font-semibold first-letter:uppercase">{scope}</h3>
          <ul className="gap-x-6 sm:columns-2">
            {keyIds
              .filter((id) => moveOf(id).scope === scope)
              .map((id) => (
                <li
                  key={id}
                  className="grid break-inside-avoid grid-cols-[5.5rem_1fr] items-baseline border-t border-line py-0.5"
                >
                  <button
                    type="button"
                    aria-label={`${moveOf(id).does}: ${changing === id ? 'press its new key' : keysOf(id, own.keys).map(sayKey).join(', ')}`}
                    onClick={() => {
                      setFault('')
                      setChanging(id)
                    }}
                    onKeyDown={(event) => {
                      if (changing === id) take(event, id)
                    }}
                    onBlur={() => changing === id && setChanging(null)}
                    className={`num rounded-sheet px-1 text-left hover:bg-ground ${own.keys[id] ? 'font-semibold text-brass' : ''}`}
                  >
                    {changing === id ? 'press…' : keysOf(id, own.keys).map(sayKey).join(', ')}
                  </button>
                  <span className="leading-snug">{moveOf(id).does}</span>
                </li>
              ))}
          </ul>
        </section>
      ))}
      <div className="mt-4 flex gap-2">
        {!all && <Button onClick={() => setAll(true)}>Keys of every place</Button>}
        {Object.keys(own.keys).length > 0 && (
          <Button onClick={() => useOwnKeys.setState({ keys: {} })}>The usual keys again</Button>
        )}
      </div>
    </Sheet>
  )
}
