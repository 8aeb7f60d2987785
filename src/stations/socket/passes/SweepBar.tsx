'use client'
import { useEffect, useRef } from 'react'
import { Button } from '@/ui/Button'
import type { Sweep } from './use-sweep'

/** What the eye is on in a sweep, why it comes now, and how much is left. */
export function SweepBar({ sweep }: { sweep: Sweep }) {
  const { stretch, left, looks, contactsLeft } = sweep
  const bar = useRef<HTMLDivElement>(null)
  // Begun from far down the page, the map and what to look at come into sight.
  useEffect(() => {
    void bar.current?.scrollIntoView({ block: 'nearest' })
  }, [])
  return (
    <div ref={bar} role="status" className="mt-2 flex items-center gap-4 border-l-4 border-brass py-1 pl-3">
      <div className="min-w-0 flex-1">
        {stretch ? (
          <p className="text-lg leading-snug">
            Look at <b className="num">{stretch.contacts[0]}</b> to{' '}
            <b className="num">{stretch.contacts.at(-1)}</b>
            {stretch.why && <span className="text-soft">; {stretch.why}</span>}
          </p>
        ) : (
          <p className="text-lg text-verd">Every contact is proved looked at.</p>
        )}
        <progress
          className="block h-2 w-full accent-[var(--brass)]"
          value={looks - left}
          max={Math.max(1, looks)}
          aria-label="Looks done"
        />
        <p className="text-[0.9rem] text-soft">
          {left === 0
            ? 'Begin a new pass to sweep again and compare.'
            : `${left} looks, ${contactsLeft.toLocaleString()} contacts left. Mark what breaks the pattern with the figures, then go on.`}
        </p>
      </div>
      {stretch ? (
        <Button look="first" keyHint="space" onClick={sweep.proved}>
          Seen, go on
        </Button>
      ) : null}
      <Button keyHint="w" onClick={sweep.toggle}>
        {stretch ? 'Leave the sweep' : 'Done'}
      </Button>
    </div>
  )
}
