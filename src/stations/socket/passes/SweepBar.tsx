'use client'
import { useReader } from '@/ui/reader'
import { useKeyHint } from '@/frame/use-keys'
import { Button } from '@/ui/Button'
import type { Sweep } from './use-sweep'

/** What the eye is on in a sweep, why it comes now, and how much is left. */
export function SweepBar({ sweep }: { sweep: Sweep }) {
  const hint = useKeyHint()
  const { number } = useReader()
  const { stretch, left, looks, contactsLeft } = sweep
  return (
    <div role="status" className="flex items-center gap-3 border-b-2 border-brass py-1">
      <div className="min-w-0 flex-1">
        {stretch ? (
          <p className="leading-snug">
            Look at <b className="num">{stretch.contacts[0]}</b> to{' '}
            <b className="num">{stretch.contacts.at(-1)}</b>
            {stretch.why && <span className="text-soft">; {stretch.why}</span>}
          </p>
        ) : (
          <p className="text-verd">Every contact is inspected.</p>
        )}
        <progress
          className="block h-2 w-full"
          value={looks - left}
          max={Math.max(1, looks)}
          aria-label="Looks done"
        />
        <p className="text-[0.9rem] text-soft">
          {left === 0
            ? 'Begin a re-inspection to go over it again and compare.'
            : `${left} looks, ${number(contactsLeft)} contacts left. Mark what breaks the pattern with the figures, then go on.`}
        </p>
      </div>
      {stretch ? (
        <Button look="first" keyHint={hint('lookedAt')} onClick={sweep.proved}>
          Seen, go on
        </Button>
      ) : null}
      <Button keyHint={hint('sweep')} onClick={sweep.toggle}>
        {stretch ? 'Stop' : 'Done'}
      </Button>
    </div>
  )
}
