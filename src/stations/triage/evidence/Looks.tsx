'use client'
import { useRef, useState } from 'react'
import { hazardWords, lookHazards, tellsOfRework } from '@/core/board/hazard'
import type { LookHazard } from '@/core/board/hazard'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'

/** What is looked at before power; faults outside the board come first because they cost a minute. */
export const lookPlaces = [
  'wiring, supply, cooler',
  'outside of the board',
  'round the socket',
  'round the firmware chip',
  'the other side',
] as const

export function Looks() {
  const looks = useJob((j) => j.state.board.looks)
  const append = useJob((j) => j.append)
  const [open, setOpen] = useState<string | null>(null)
  return (
    <section id="look" className="pb-4">
      <ul>
        {lookPlaces.map((place) => {
          const look = looks.findLast((l) => l.what === place)
          return (
            <li key={place} className="border-b border-line py-1">
              <div className="flex items-baseline justify-between gap-3">
                <span>
                  {place}
                  {look && (
                    <span className={look.clear ? 'text-verd' : 'font-semibold text-ember'}>
                      {' '}
                      {look.clear ? 'nothing seen' : look.seen}
                      {!look.clear && ` (${look.hazard ? hazardWords[look.hazard] : 'not said what it is'})`}
                      {tellsOfRework(look) && ': others have worked on it'}
                    </span>
                  )}
                </span>
                <span className="flex shrink-0 gap-1">
                  <Button
                    look="bare"
                    className="py-0.5!"
                    onClick={() => append('look', { what: place, seen: 'nothing seen', clear: true })}
                    aria-label={`${place}: OK`}
                  >
                    OK
                  </Button>
                  <Button
                    look="bare"
                    className="py-0.5!"
                    onClick={() => setOpen(open === place ? null : place)}
                    aria-label={`${place}: problem`}
                    aria-expanded={open === place}
                  >
                    Problem…
                  </Button>
                </span>
              </div>
              {open === place && <Found place={place} close={() => setOpen(null)} />}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** What was found: its kind by one key, words beside it. The kind decides whether it speaks against power. */
function Found({ place, close }: { place: string; close: () => void }) {
  const append = useJob((j) => j.append)
  const [hazard, setHazard] = useState<LookHazard | null>(null)
  const [seen, setSeen] = useState('')
  const [fault, setFault] = useState('')
  const words = useRef<HTMLInputElement>(null)
  const choose = (kind: LookHazard) => {
    setHazard(kind)
    setFault('')
    words.current?.focus()
  }
  return (
    <form
      className="py-1"
      onSubmit={(event) => {
        event.preventDefault()
        if (!hazard) return setFault('Say first what it is: press its number.')
        append('look', { what: place, seen: seen.trim() || hazardWords[hazard], clear: false, hazard })
        close()
      }}
    >
      <div
        role="radiogroup"
        aria-label={`What was found: ${place}`}
        className="flex flex-wrap gap-1"
        onKeyDown={(event) => {
          const kind = lookHazards[Number(event.key) - 1]
          if (!kind || event.repeat) return
          event.preventDefault()
          choose(kind)
        }}
      >
        {lookHazards.map((kind, i) => (
          <button
            key={kind}
            type="button"
            role="radio"
            aria-checked={hazard === kind}
            autoFocus={i === 0}
            onClick={() => choose(kind)}
            className={`rounded-sheet border-[1.5px] px-2 py-0.5 ${hazard === kind ? 'border-ink font-semibold' : 'border-line text-soft'}`}
          >
            <kbd className="num text-sm">{i + 1}</kbd> {hazardWords[kind]}
          </button>
        ))}
      </div>
      <div className="mt-1 flex gap-2">
        <input
          ref={words}
          value={seen}
          onChange={(e) => setSeen(e.target.value)}
          aria-label={`Found ${place}`}
          placeholder="where, what it looks like; flux or a reheated part tell of earlier work"
          className="w-full"
        />
        <Button type="submit" className="shrink-0">
          Note it
        </Button>
      </div>
      {fault && (
        <p role="alert" className="font-semibold text-ember">
          {fault}
        </p>
      )}
    </form>
  )
}
