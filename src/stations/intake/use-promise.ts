import { useEffect, useRef, useState } from 'react'
import type { UseFormReturn } from 'react-hook-form'
import type { IfPromised } from '@/core/shop/promise'
import { latestOnly } from '@/job/latest-only'
import { useJob } from '@/job/JobProvider'
import type { TicketForm } from './ticket-form'

/** A promise as it is typed, and what it would come to. */
export interface Promised extends IfPromised, Pick<TicketForm, 'promised' | 'minutes'> {
  /** The moment of `likely`. */
  readonly likelyAt: string | null
}

/** What the promise that is typed would come to, asked of the bench whenever it or the minutes change; null until it is told. */
export function usePromise({ watch, formState: { errors } }: UseFormReturn<TicketForm>): Promised | null {
  const tag = useJob((j) => j.tag)
  const ended = useJob((j) => j.state.handBack.done !== null)
  const [promised, minutes] = watch(['promised', 'minutes'])
  const [told, setTold] = useState<Promised | null>(null)
  const ask = useRef<((to: { promised: string; minutes: string }) => void) | null>(null)
  useEffect(() => {
    const control = new AbortController()
    ask.current = latestOnly(async ({ promised, minutes }) => {
      const at = promised && new Date(promised).toISOString()
      const query = new URLSearchParams({ minutes, promised: at })
      const answer = await fetch(`/api/jobs/${tag}/promise?${query}`, { signal: control.signal })
      const says = answer.ok ? ((await answer.json()) as Omit<Promised, 'promised' | 'minutes'>) : null
      setTold(says && { promised, minutes, ...says })
    })
    return () => control.abort()
  }, [tag])
  const sound =
    !ended && errors.minutes === undefined && (promised === '' || !Number.isNaN(Date.parse(promised)))
  useEffect(() => {
    if (sound) ask.current?.({ promised, minutes })
  }, [promised, minutes, sound])
  return told?.promised === promised && told.minutes === minutes ? told : null
}
