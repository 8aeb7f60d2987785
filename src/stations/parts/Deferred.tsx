'use client'
import { useState } from 'react'
import type { Deferred as DeferredWork } from '@/core/parts/slice'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { OneLine } from '@/ui/OneLine'
import { When } from '@/ui/When'

/** Work that was seen to be needed and left for later: the hand-back is held until it is done or somebody answers for it. */
export function Deferred() {
  const deferred = useJob((j) => j.state.parts.deferred)
  const append = useJob((j) => j.append)
  return (
    <section id="deferred" className="border-t border-line py-3">
      <h3 className="font-semibold">Left for later</h3>
      {deferred.length === 0 && (
        <p className="text-soft">
          Nothing. What is seen and not done now holds the hand-back until it is settled.
        </p>
      )}
      <ul>
        {deferred.map((d) => (
          <DeferredLine key={d.seq} of={d} />
        ))}
      </ul>
      <OneLine
        label="What is left for later"
        placeholder="second header burnt…"
        keep="Leave it for later"
        wanted="What is left? Like: second header burnt."
        onKeep={(text) => append('deferred', { text })}
      />
    </section>
  )
}

function DeferredLine({ of: { seq, at, text, settled } }: { of: DeferredWork }) {
  const append = useJob((j) => j.append)
  const [signing, setSigning] = useState(false)
  const settle = (how: 'done' | 'signed off', why: string) =>
    append('deferred settled', { deferred: seq, how, why })
  return (
    <li className="border-b border-dashed border-line py-1.5">
      {text}
      <span className="text-soft">
        , <When at={at} as="time" />
      </span>
      {settled ? (
        <span className={settled.how === 'done' ? 'text-verd' : 'text-brass'}>
          : {settled.how}
          {settled.why && `, ${settled.why}`} ({settled.by})
        </span>
      ) : (
        <p className="flex flex-wrap items-center gap-2">
          <b className="font-semibold text-ember">Hand-back is held.</b>
          <Button look="bare" disabled={seq === 0} onClick={() => settle('done', '')}>
            It is done
          </Button>
          <Button look="bare" disabled={seq === 0} onClick={() => setSigning(true)}>
            Sign it off…
          </Button>
        </p>
      )}
      {signing && !settled && (
        <OneLine
          label={`Why ${text} is left`}
          placeholder="the owner does without it"
          keep="I answer for leaving it"
          wanted="Why may it be left? Like: the owner does without it."
          onKeep={(why) => settle('signed off', why)}
        />
      )}
    </li>
  )
}
