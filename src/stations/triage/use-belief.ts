'use client'
import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Belief, ToBelieve } from '@/core/triage/belief'
import { evidenceOf } from '@/core/triage/evidence'
import { faultIds } from '@/core/triage/fault'
import { useJob } from '@/stations/job/JobProvider'
import type { BeliefDesk } from '@/workers/belief.worker'

/** What the tape makes likely and which test is next, reckoned in a worker; the last answer stays until the next. */
export function useBelief(): { readonly belief: Belief | null; readonly fresh: boolean } {
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const references = useJob((j) => j.references)
  const earlier = useJob((j) => j.earlier)
  const shelf = useJob((j) => j.shelf)
  const own = useJob((j) => j.own)
  const mayPower = useJob((j) => j.gate.lamp !== 'do not power')
  const desk = useRef<Remote<BeliefDesk> | null>(null)
  const [answer, setAnswer] = useState<{ to: string; belief: Belief } | null>(null)
  const asked = useMemo((): ToBelieve => {
    const again = faultIds.filter((id) => earlier.some((job) => job.mended.includes(id)))
    return {
      history: state.intake.ticket.history,
      ...evidenceOf(state, socket, references),
      mayPower,
      again,
      shelf,
      own,
    }
  }, [state, socket, references, earlier, shelf, own, mayPower])
  const key = JSON.stringify(asked)

  useEffect(() => {
    const worker = new Worker(new URL('../../workers/belief.worker.ts', import.meta.url), { type: 'module' })
    desk.current = wrap<BeliefDesk>(worker)
    return () => {
      desk.current = null
      worker.terminate()
    }
  }, [])
  useEffect(() => {
    let current = true
    void desk.current?.believe(JSON.parse(key) as ToBelieve).then((belief) => {
      if (current) setAnswer({ to: key, belief })
    })
    return () => {
      current = false
    }
  }, [key])
  return { belief: answer?.belief ?? null, fresh: answer?.to === key }
}
