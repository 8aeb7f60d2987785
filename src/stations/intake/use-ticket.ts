'use client'
import { useCallback, useEffect, useMemo } from 'react'
import type { Resolver } from 'react-hook-form'
import { useForm } from 'react-hook-form'
import { useReader } from '@/ui/reader'
import { useJob } from '@/job/JobProvider'
import { typedHere } from '@/job/typed-here'
import { formOf, ticketChanges } from './ticket-form'
import type { TicketForm } from './ticket-form'
import { usePromise } from './use-promise'

/** What checks the form is heavy, and no other station needs it: it comes once this one is open. */
const rules = () => import('./ticket-rules')

const draftKey = (tag: string) => `ticket draft ${tag}`

/** The ticket as a form: each keystroke is kept in the browser, a section goes on the tape when it is left. */
export function useTicket() {
  const tag = useJob((j) => j.tag)
  const ticket = useJob((j) => j.state.intake.ticket)
  const append = useJob((j) => j.append)
  const values = useMemo(() => formOf(ticket), [ticket])
  const { currency } = useReader()
  useEffect(() => void rules().catch(() => undefined), [])
  const resolver = useCallback<Resolver<TicketForm>>(
    async (...asked) => (await rules()).ticketRules(currency)(...asked),
    [currency],
  )
  const form = useForm<TicketForm>({
    values,
    resetOptions: { keepDirtyValues: true },
    resolver,
    mode: 'onTouched',
  })
  const { setValue, subscribe, handleSubmit } = form

  useEffect(() => {
    for (const [field, value] of Object.entries(typedHere<TicketForm>(draftKey(tag))))
      setValue(field as keyof TicketForm, value as never, { shouldDirty: true })
    return subscribe({
      formState: { values: true, dirtyFields: true },
      callback: ({ values: now, dirtyFields }) => {
        const dirty = Object.keys(dirtyFields ?? {}) as (keyof TicketForm)[]
        const draft = Object.fromEntries(dirty.map((field) => [field, now[field]]))
        localStorage.setItem(draftKey(tag), JSON.stringify(draft))
      },
    })
  }, [tag, setValue, subscribe])

  const promise = usePromise(form)
  /** Puts what differs on the tape; an amount that makes no sense stays in its field with its fault. */
  const keep = handleSubmit((typed) => {
    const set = ticketChanges(typed, ticket, currency)
    const reckoned = set.promisedAt && promise ? promise.kept : null
    if (Object.keys(set).length > 0)
      append('ticket', { set, ...(reckoned === null ? {} : { kept: reckoned }) })
    form.reset(typed)
    localStorage.removeItem(draftKey(tag))
  })
  return { form, keep, promise }
}
