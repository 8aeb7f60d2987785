'use client'
import type { Bodies } from '@/core/slices'

import { useState } from 'react'
import { Ledger } from '@/panels/Ledger'
import { useJob } from '@/job/JobProvider'
import { Photos } from '@/panels/Photos'
import { StationFoot } from '@/frame/StationFoot'
import { StationStep } from '@/frame/StationStep'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'

type Did = Bodies['part']['did']
const dids: readonly Did[] = ['found missing', 'found damaged', 'measured', 'taken off', 'fitted']

/** Small parts one by one: how each was found, what it was, what became of it. */
export function PartsStation() {
  return (
    <>
      <StationStep station="parts" />
      <div className="mt-3 grid grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-x-8">
        <div>
          <PartLives />
          <Photos />
        </div>
        <div>
          <NotePart />
          <div className="border-t border-line py-3">
            <Ledger />
          </div>
          <Caution>
            Power, feedback, straps, resets and clocks are never guessed: look them up or measure a twin. Hot
            air burns: fume extraction, eye protection, nothing flammable near. Lead and flux: wash hands.
          </Caution>
        </div>
      </div>
      <StationFoot station="parts" />
    </>
  )
}

/** What each part has gone through, from found to fitted. */
function PartLives() {
  const parts = useJob((j) => j.state.parts.noted)
  const refs = [...new Set(parts.map((p) => p.ref))]
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>Parts</h2>
      {refs.length === 0 && (
        <p className="text-soft">
          None noted. Look along the edges of the socket and round the firmware chip: empty pads with shiny
          solder, cracked ends, a part at an angle.
        </p>
      )}
      <dl>
        {refs.map((ref) => {
          const life = parts.filter((p) => p.ref === ref)
          const settled = life.at(-1)!.did === 'fitted'
          return (
            <div key={ref} className="grid grid-cols-[6rem_1fr] gap-3 border-b border-line py-2 leading-snug">
              <dt className="num text-[1.1rem]">{ref}</dt>
              <dd>
                {life.map((p, i) => (
                  <span key={p.seq}>
                    {i > 0 && ', then '}
                    <span
                      className={
                        i === life.length - 1 ? `font-semibold ${settled ? 'text-verd' : ''}` : 'text-soft'
                      }
                    >
                      {p.did}
                    </span>
                    {[p.value, p.text].filter(Boolean).length > 0 && (
                      <span className="text-soft"> ({[p.value, p.text].filter(Boolean).join(', ')})</span>
                    )}
                  </span>
                ))}
                {life.findLast((p) => p.side)?.side && (
                  <span className="text-soft">; {life.findLast((p) => p.side)!.side} side</span>
                )}
              </dd>
            </div>
          )
        })}
      </dl>
    </section>
  )
}

function NotePart() {
  const put = useJob((j) => j.put)
  const [ref, setRef] = useState('')
  const [did, setDid] = useState<Did>('found missing')
  const [side, setSide] = useState<'top' | 'bottom'>('top')
  const [value, setValue] = useState('')
  const [text, setText] = useState('')
  const [fault, setFault] = useState<string>()
  return (
    <form
      className="flex flex-col gap-2.5 border-t border-line pt-2.5 pb-4"
      onSubmit={(event) => {
        event.preventDefault()
        if (!ref.trim())
          return setFault('Which part? Its name on the board, or where it is: R214, or “left of the chip”.')
        put('part', {
          ref: ref.trim(),
          did,
          side,
          ...(value.trim() ? { value: value.trim() } : {}),
          ...(text.trim() ? { text: text.trim() } : {}),
        })
        setRef('')
        setValue('')
        setText('')
        setFault(undefined)
      }}
    >
      <h2>Note a part</h2>
      <TextField
        label="Part"
        value={ref}
        onChange={(e) => setRef(e.target.value)}
        error={fault}
        placeholder="R214"
        className="num"
      />
      <Choice label="It was" value={did} options={dids} onChange={setDid} />
      <Choice label="Side" value={side} options={['top', 'bottom']} onChange={setSide} />
      <div className="grid grid-cols-[7rem_1fr] gap-3">
        <TextField
          label="Value"
          value={value}
          onChange={(e) => setValue(e.target.value)}
          placeholder="33 Ω"
          className="num"
        />
        <TextField
          label="How it is known"
          value={text}
          onChange={(e) => setText(e.target.value)}
          placeholder="twin beside it measures 33 Ω"
        />
      </div>
      <Button type="submit" look="first" className="self-start">
        Note the part
      </Button>
    </form>
  )
}
