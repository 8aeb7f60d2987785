'use client'
import { useState } from 'react'
import { checkWords, inItsMachineFirst, openChecks, reassemblyChecks } from '@/core/hand-back/reassembly'
import type { ReassemblyCheck } from '@/core/hand-back/reassembly'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'

/** What is looked at when the board goes back into its machine, one after the other. */
export function BackTogether() {
  const reassembly = useJob((j) => j.state.handBack.reassembly)
  const append = useJob((j) => j.append)
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>Back in its machine</h2>
      {reassembly.machine ? (
        <Checks />
      ) : (
        <>
          <p className="text-soft">
            {reassembly.machine === null ? 'Did its machine come with it?' : 'No machine came with it.'}
          </p>
          <div className="mt-1 flex flex-wrap gap-2">
            <Button onClick={() => append('machine', { came: true })}>It is here</Button>
            {reassembly.machine === null && (
              <Button onClick={() => append('machine', { came: false })}>Board alone</Button>
            )}
          </div>
        </>
      )}
    </section>
  )
}

function Checks() {
  const reassembly = useJob((j) => j.state.handBack.reassembly)
  const append = useJob((j) => j.append)
  const [note, setNote] = useState('')
  const open = openChecks(reassembly)
  const [next] = open
  const first = inItsMachineFirst(reassembly)
  const say = (check: ReassemblyCheck, ok: boolean) => {
    append('reassembled', { check, ok, note: note.trim() })
    setNote('')
  }
  return (
    <>
      {first && (
        <p role="status" className="mt-1 border-l-4 border-ember pl-3">
          It ran on the bench: what lies between comes first.{' '}
          <b className="font-semibold">{checkWords[first].say}</b>: {checkWords[first].when}.
        </p>
      )}
      {next && (
        <div role="group" aria-label={checkWords[next].say} className="mt-1">
          <p className="font-semibold">{checkWords[next].say}</p>
          <p className="leading-snug text-soft">{checkWords[next].when}</p>
          <input
            value={note}
            onChange={(e) => setNote(e.target.value)}
            aria-label={`Note on ${checkWords[next].say}`}
            placeholder="note"
            className="mt-1 w-full py-1!"
          />
          <div className="mt-1.5 flex flex-wrap gap-2">
            <Button look="first" onClick={() => say(next, true)}>
              In order
            </Button>
            <Button onClick={() => say(next, false)}>Not in order</Button>
          </div>
        </div>
      )}
      <ul className="mt-1.5" aria-label="Checks made">
        {reassemblyChecks.map((check) => {
          const is = reassembly.found[check]
          return (
            is && (
              <li
                key={check}
                className="flex items-baseline justify-between gap-2 border-b border-dashed border-line py-0.5"
              >
                <span>
                  {checkWords[check].say}
                  {is.note && <span className="text-soft">, {is.note}</span>}
                </span>
                <Button
                  look="bare"
                  className={`shrink-0 py-0! ${is.ok ? 'text-verd' : 'font-semibold text-ember'}`}
                  aria-label={`${checkWords[check].say}: ${is.ok ? 'in order; press if it is not' : 'not in order; press once it is'}`}
                  onClick={() => append('reassembled', { check, ok: !is.ok, note: '' })}
                >
                  {is.ok ? 'in order' : 'not in order'}
                </Button>
              </li>
            )
          )
        })}
      </ul>
      {open.length === 0 && <p className="mt-1 text-soft">Nothing is left to look at.</p>}
    </>
  )
}
