'use client'
import { useEffect, useRef, useState } from 'react'
import { useJob } from '@/job/JobProvider'
import type { Customer } from '@/job/job-store'
import { Button } from '@/ui/Button'
import { TicketLine } from '@/ui/TicketLine'

/** Whose board it is. This stands outside the tape, so that it can be erased on request. */
export function Owner() {
  const tag = useJob((j) => j.tag)
  const customer = useJob((j) => j.customer)
  const keep = useJob((j) => j.keepCustomer)
  const draft = useJob((j) => j.ownerDraft)
  const setDraft = useJob((j) => j.draftOwner)
  const name = draft?.name ?? customer?.name ?? ''
  const contact = draft?.contact ?? customer?.contact ?? ''
  const [kept, setKept] = useState(false)
  const [fault, setFault] = useState<{ field: string; text: string } | null>(null)
  const dirty = name.trim() !== (customer?.name ?? '') || contact.trim() !== (customer?.contact ?? '')

  const latest = useRef({ name, contact })
  async function ask(method: 'PUT' | 'DELETE') {
    setFault(null)
    try {
      const body = method === 'PUT' ? JSON.stringify({ name, contact }) : undefined
      const answer = await fetch(`/api/jobs/${tag}/customer`, {
        method,
        body,
        headers: { 'content-type': 'application/json' },
      })
      const reply = (await answer.json()) as Customer & { error?: { field: string; text: string } }
      if (reply.error) return setFault(reply.error)
      keep(reply)
      // What was typed meanwhile is not what was kept.
      if (latest.current.name === name && latest.current.contact === contact) setDraft(null)
      setKept(method === 'PUT')
    } catch {
      setFault({
        field: '',
        text: 'The server does not answer. What you wrote stays here; keep it again in a moment.',
      })
    }
  }

  /** Leaving a field keeps it, like every other field of the ticket; what the server cannot take yet stays here. */
  const leave = () => {
    if (!dirty) return
    if (name.trim()) void ask('PUT')
    else setFault({ field: 'name', text: 'Whose board is it? A name is enough; what you wrote stays here.' })
  }

  const leaving = useRef(leave)
  useEffect(() => {
    leaving.current = leave
    latest.current = { name, contact }
  })
  // Going to another station by a key leaves the field too.
  useEffect(() => () => leaving.current(), [])

  return (
    <section id="owner" className="border-t border-line pt-2.5 pb-4">
      <div className="flex items-baseline justify-between">
        <h2>The owner</h2>
        {customer && !customer.erased && !dirty && (
          <Button look="bare" onClick={() => void ask('DELETE')}>
            Erase
          </Button>
        )}
      </div>
      {customer?.erased && <p className="text-soft">Erased; the technical record stays.</p>}
      <TicketLine label="Name" error={fault?.field === 'name' ? fault.text : undefined}>
        <input
          value={name}
          onChange={(e) => setDraft({ name: e.target.value, contact })}
          onBlur={leave}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
          autoComplete="off"
        />
      </TicketLine>
      <TicketLine label="Reached at" error={fault?.field === 'contact' ? fault.text : undefined}>
        <input
          value={contact}
          onChange={(e) => setDraft({ name, contact: e.target.value })}
          onBlur={leave}
          onKeyDown={(e) => e.key === 'Enter' && leave()}
          autoComplete="off"
          placeholder="telephone or address"
        />
      </TicketLine>
      {fault?.field === '' && (
        <p role="alert" className="mt-1 font-semibold text-ember">
          {fault.text}
        </p>
      )}
      {kept && !dirty && (
        <p role="status" className="mt-1 text-verd">
          The owner is kept.
        </p>
      )}
    </section>
  )
}
