'use client'
import type { Entry } from '@/core/job/job-state'
import { contactsOf, sayEntry } from '@/core/job/job-state'

import { useId, useRef, useState } from 'react'
import { completions, readLine } from '@/core/job/quick-entry'
import { unknownContact } from '@/core/socket/model/socket'
import { useKeys } from './use-keys'
import { useJob } from '@/job/JobProvider'

/** A command that wants the number of a line. */
const wantsNumber = /^\s*strike\b/i

/** The tape's last line: one word and a reading, completed by Tab, explained while it is typed. */
export function QuickEntry({ onNumbers }: { onNumbers: (shown: boolean) => void }) {
  const append = useJob((j) => j.append)
  const socket = useJob((j) => j.socket)
  const lines = useJob((j) => j.lines)
  const cpu = useJob((j) => j.state.board.power.cpu)
  const own = useJob((j) => j.state.board.ownRails)
  const [line, setLine] = useState('')
  const [fault, setFault] = useState<{ say: string; example: string } | null>(null)
  const [kept, setKept] = useState('')
  const input = useRef<HTMLInputElement>(null)
  const id = useId()
  useKeys({ type: () => input.current?.focus() })
  const offers = line.trim() === '' ? [] : completions(line)
  const offer = offers.find((o) => o.text !== '' && o.text !== line)

  /** What is wrong, with the old text chosen: typing on replaces it, an arrow mends it. */
  function refuse(wrong: { say: string; example: string }) {
    setFault(wrong)
    input.current?.select()
  }
  function enter() {
    if (line.trim() === '')
      return setFault({ say: 'type a word and a reading first', example: 'ohm vcore 1.8 cpu out' })
    const read = readLine(line, { cpu, rails: own.map((r) => r.rail) })
    if (!read.ok) return refuse({ say: read.say, example: read.example })
    const { strikes } = read.entry
    if (strikes !== null && !lines.some((e) => e.seq === strikes))
      return refuse({
        say: `there is no line ${strikes} on this tape; it has ${lines.length}`,
        example: `strike ${lines.length} ${read.entry.kind === 'strike' ? read.entry.body.why : ''}`,
      })
    const stranger = socket && unknownContact(socket, contactsOf(read.entry))
    if (stranger) return refuse({ say: stranger, example: line })
    append(read.entry.kind, read.entry.body, read.entry.strikes)
    setLine('')
    onNumbers(false)
    setFault(null)
    setKept(sayEntry({ ...read.entry, seq: 0, at: '', by: '', id: '', v: 1 } as Entry))
  }

  return (
    <div className="mr-3 border-t-2 border-ink pt-2 pb-3">
      <label htmlFor={id} className="sr-only">
        Quick entry on the tape
      </label>
      <div className="flex items-center gap-2">
        <span aria-hidden="true" className="h-[1.15rem] w-[9px] bg-brass" />
        <input
          id={id}
          ref={input}
          value={line}
          autoComplete="off"
          spellCheck={false}
          placeholder="ohm vcore 1.8"
          aria-describedby={`${id}-say`}
          aria-invalid={fault ? true : undefined}
          className="num w-full border-0! bg-transparent! px-0! py-0.5! text-base outline-offset-4"
          onChange={(event) => {
            setLine(event.target.value)
            onNumbers(wantsNumber.test(event.target.value))
            setFault(null)
            setKept('')
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault()
              if (!event.repeat) enter()
            } else if (event.key === 'Tab' && !event.shiftKey && offer) {
              event.preventDefault()
              setLine(offer.text)
            }
          }}
        />
      </div>
      <div
        id={`${id}-say`}
        className="min-h-[2.5rem] text-[0.88rem] leading-snug text-soft"
        aria-live="polite"
      >
        {fault ? (
          <>
            <span className="font-semibold text-ember">{fault.say}. </span>
            <button
              type="button"
              className="text-left underline"
              onClick={() => {
                setLine(fault.example)
                setFault(null)
                input.current?.focus()
              }}
            >
              Like: {fault.example}
            </button>
          </>
        ) : offer ? (
          <>
            <kbd className="num">Tab</kbd>{' '}
            {offers
              .slice(0, 4)
              .map((o) => o.text.trim())
              .join(' · ')}
            {offers.length === 1 && ` — ${offers[0]!.say}`}
          </>
        ) : (
          (offers[0]?.say ?? (kept ? `kept: ${kept}` : 'a word and a reading; t comes here, Enter keeps it'))
        )}
      </div>
    </div>
  )
}
