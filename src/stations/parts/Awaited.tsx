'use client'
import { useState } from 'react'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { When } from '@/ui/When'

/** What was ordered or is awaited, and when it is expected: the bench list and the owner’s page reckon with it. */
export function Awaited() {
  const awaited = useJob((j) => j.state.parts.awaited)
  const append = useJob((j) => j.append)
  const [what, setWhat] = useState('')
  const [on, setOn] = useState('')
  const [empty, setEmpty] = useState(false)
  return (
    <section id="awaited" aria-label="Awaited" className="border-t border-line py-3">
      <h3 className="font-semibold">Awaited</h3>
      {awaited.length === 0 && <p className="text-soft">Nothing is on its way.</p>}
      <ul>
        {awaited.map((a) => (
          <li key={a.seq} className="border-b border-dashed border-line py-1.5">
            {a.what}
            <span className="text-soft">
              {a.expectedOn === null ? (
                ', no day known'
              ) : (
                <>
                  , expected on <When at={`${a.expectedOn}T12:00:00Z`} as="date" />
                </>
              )}
            </span>
            {a.settled ? (
              <span className={a.settled === 'arrived' ? 'text-verd' : 'text-brass'}>: {a.settled}</span>
            ) : (
              <p className="flex flex-wrap items-center gap-2">
                {(['arrived', 'not coming'] as const).map((how) => (
                  <Button
                    key={how}
                    look="bare"
                    disabled={a.seq === 0}
                    onClick={() => append('awaited settled', { awaited: a.seq, how })}
                  >
                    {how === 'arrived' ? 'It is here' : 'It does not come'}
                  </Button>
                ))}
              </p>
            )}
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          setEmpty(!what.trim())
          if (!what.trim()) return
          append('awaited', { what: what.trim(), expectedOn: on === '' ? null : on })
          setWhat('')
          setOn('')
        }}
      >
        <TextField
          label="What is awaited"
          placeholder="two 10 µF capacitors"
          value={what}
          error={empty ? 'What is awaited? Like: two 10 µF capacitors.' : undefined}
          onChange={(e) => setWhat(e.target.value)}
          maxLength={120}
        />
        <div className="flex items-end gap-2">
          <TextField label="Expected on" type="date" value={on} onChange={(e) => setOn(e.target.value)} />
          <Button type="submit">Wait for it</Button>
        </div>
      </form>
    </section>
  )
}
