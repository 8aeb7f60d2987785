'use client'
import { useState } from 'react'
import { useJob } from '@/stations/job/JobProvider'
import { Button } from '@/ui/Button'

/** What is looked at before power; faults outside the board come first because they cost a minute. */
const places = [
  'wiring, supply, cooler',
  'outside of the board',
  'round the socket',
  'round the firmware chip',
  'the other side',
] as const

export function Looks() {
  const looks = useJob((j) => j.state.looks)
  const put = useJob((j) => j.put)
  const [open, setOpen] = useState<string | null>(null)
  const [seen, setSeen] = useState('')
  return (
    <section id="look" className="border-t border-line pt-2.5 pb-4">
      <h2>Looked at</h2>
      <ul>
        {places.map((place) => {
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
                    </span>
                  )}
                </span>
                <span className="flex shrink-0 gap-1">
                  <Button
                    look="bare"
                    className="py-0.5!"
                    onClick={() => put('look', { what: place, seen: 'nothing seen', clear: true })}
                    aria-label={`${place}: clear`}
                  >
                    Clear
                  </Button>
                  <Button
                    look="bare"
                    className="py-0.5!"
                    onClick={() => setOpen(open === place ? null : place)}
                    aria-label={`${place}: found something`}
                    aria-expanded={open === place}
                  >
                    Found…
                  </Button>
                </span>
              </div>
              {open === place && (
                <form
                  className="flex gap-2 py-1"
                  onSubmit={(event) => {
                    event.preventDefault()
                    if (!seen.trim()) return
                    put('look', { what: place, seen: seen.trim(), clear: false })
                    setSeen('')
                    setOpen(null)
                  }}
                >
                  <input
                    value={seen}
                    onChange={(e) => setSeen(e.target.value)}
                    aria-label={`Found ${place}`}
                    placeholder="burn mark, liquid, a missing part, flux…"
                    className="w-full"
                    autoFocus
                  />
                  <Button type="submit">Note it</Button>
                </form>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}
