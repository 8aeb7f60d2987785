'use client'
import { Count } from '@/ui/reader'
import { useActionState } from 'react'
import type { Donor } from '@/data/donors'
import { Button } from '@/ui/Button'
import { SelectField, TextField } from '@/ui/Field'
import { donorAction } from './shelf-actions'

/** Sockets kept for their contacts, and how many each has left. */
export function Donors({
  donors,
  sockets,
}: {
  donors: readonly Donor[]
  sockets: readonly { readonly id: string; readonly name: string }[]
}) {
  const [answer, act, busy] = useActionState(donorAction, { fault: '' })
  return (
    <section className="mt-10 max-w-[52rem]" aria-label="Donor sockets">
      <h2>Sockets kept for their contacts</h2>
      <p className="text-soft">
        A transplant or a practice pull noted on a job counts one contact down, whether it held or not.
      </p>
      <ul className="mt-2">
        {donors.map((d) => (
          <li key={d.name} className="flex items-baseline gap-4 border-b border-line py-1.5">
            <b className="w-56 font-semibold">{d.name}</b>
            <span className="flex-1 text-soft">{d.socketName}</span>
            <span className="num">
              <Count n={d.left} /> left
            </span>
            <form action={act}>
              <input type="hidden" name="name" value={d.name} />
              <input type="hidden" name="off" value="yes" />
              <Button type="submit" look="bare" aria-label={`Take ${d.name} off the shelf`}>
                Off the shelf
              </Button>
            </form>
          </li>
        ))}
      </ul>
      <form action={act} className="mt-3 grid items-end md:grid-cols-[1fr_12rem_9rem_auto] gap-3">
        <TextField label="Donor" name="name" placeholder="burnt TW-K61, drawer 3" />
        <SelectField label="Socket" name="socket">
          {sockets.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextField label="Contacts left" name="contacts" inputMode="numeric" />
        <Button type="submit" disabled={busy}>
          Put it on the shelf
        </Button>
      </form>
      {answer.fault && (
        <p role="alert" className="mt-1 font-semibold text-ember">
          {answer.fault}
        </p>
      )}
    </section>
  )
}
