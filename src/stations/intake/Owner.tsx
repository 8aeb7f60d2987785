'use client'
import { useState } from 'react'
import { useJob } from '@/stations/job/JobProvider'
import type { Customer } from '@/stations/job/job-store'
import { Button } from '@/ui/Button'
import { TicketLine } from '@/ui/TicketLine'

/** Whose board it is. This stands outside the tape, so that it can be erased on request. */
export function Owner() {
  const tag = useJob((j) => j.tag)
  const customer = useJob((j) => j.customer)
  const keep = useJob((j) => j.keepCustomer)
  const [name, setName] = useState(customer?.name ?? '')
  const [contact, setContact] = useState(customer?.contact ?? '')
  const [fault, setFault] = useState<{ field: string; text: string } | null>(null)
  const dirty = name.trim() !== (customer?.name ?? '') || contact.trim() !== (customer?.contact ?? '')

  async function ask(method: 'PUT' | 'DELETE') {
    setFault(null)
    try {
      const body = method === 'PUT' ? JSON.stringify({ name, contact }) : undefined
      const answer = await fetch(`/api/jobs/${tag}/customer`, {
        method,
        body,
        headers: { 'content-type': 'application/json' },
      })
      const said = (await answer.json()) as Customer & { error?: { field: string; text: string } }
      if (said.error) return setFault(said.error)
      keep(said)
      setName(said.name)
      setContact(said.contact)
    } catch {
      setFault({
        field: '',
        text: 'The server does not answer. What you wrote stays here; keep it again in a moment.',
      })
    }
  }

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
      {customer?.erased && <p className="text-soft">Erased on request; the technical record stays.</p>}
      <TicketLine label="Name" error={fault?.field === 'name' ? fault.text : undefined}>
        <input value={name} onChange={(e) => setName(e.target.value)} autoComplete="off" />
      </TicketLine>
      <TicketLine label="Reached at" error={fault?.field === 'contact' ? fault.text : undefined}>
        <input
          value={contact}
          onChange={(e) => setContact(e.target.value)}
          autoComplete="off"
          placeholder="telephone or address"
        />
      </TicketLine>
      {fault?.field === '' && (
        <p role="alert" className="mt-1 font-semibold text-ember">
          {fault.text}
        </p>
      )}
      {dirty && (
        <Button className="mt-2" onClick={() => void ask('PUT')}>
          Keep the owner
        </Button>
      )}
    </section>
  )
}
