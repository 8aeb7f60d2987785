'use client'
import { useState } from 'react'
import { doneAtChip } from '@/core/firmware/slice'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { When } from '@/ui/When'

/** Found and done at the chip, in order. */
export function StepsTaken() {
  const firmware = useJob((j) => j.state.firmware)
  const log = doneAtChip(firmware)
  const append = useJob((j) => j.append)
  const [text, setText] = useState('')
  const [fault, setFault] = useState<string>()
  return (
    <section className="pt-2.5 pb-4">
      <h2>Found and done, in order</h2>
      {log.length === 0 && (
        <p className="text-soft">
          Nothing yet. First what is there: the version it shows, the chip’s marking, whether the parts round
          it are all present.
        </p>
      )}
      <ol>
        {log.map((f) => (
          <li
            key={f.seq}
            className="grid grid-cols-[4.6rem_1fr] gap-3 border-b border-dashed border-line py-1.5 leading-snug"
          >
            <span className="pt-0.5 text-[0.88rem] text-soft">
              <When at={f.at} as="time" />
            </span>
            <span>{f.say}</span>
          </li>
        ))}
      </ol>
      <form
        className="mt-3 flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (!text.trim()) return setFault('What was done? Like: read twice, both reads equal, backup kept.')
          append('firmware', { did: text.trim() })
          setText('')
          setFault(undefined)
        }}
      >
        <TextField
          label="What was done"
          value={text}
          onChange={(e) => setText(e.target.value)}
          error={fault}
          placeholder="read twice, both reads equal, backup kept"
        />
        <Button type="submit" look="first" className="self-start">
          Note the step
        </Button>
      </form>
    </section>
  )
}
