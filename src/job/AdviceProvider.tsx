'use client'
import { usePathname } from 'next/navigation'
import { createContext, useContext, useEffect, useMemo, useRef, useState } from 'react'
import type { ReactNode } from 'react'
import { toAdvise } from '@/core/job/advise'
import type { Reckoned, ToAdvise } from '@/core/job/advise'
import { remoteOf } from '@/ui/remote'
import type { AdviseWorker } from '@/workers/advise.worker'
import { useJob } from './JobProvider'
import { latestOnly } from './latest-only'
import { stationOfPath } from './station-path'

interface Advice extends Reckoned {
  /** It follows from the tape as it stands; otherwise a newer one is under way. */
  readonly fresh: boolean
  /** It could not be calculated: there is none. */
  readonly failed: boolean
}

const nothing: Reckoned = { belief: null, work: null }
const Context = createContext<Advice>({ ...nothing, fresh: false, failed: false })

/** Odds and order of work of a job, computed in a worker once for all its stations; the last answer stays until the next. */
export function AdviceProvider({ children }: { children: ReactNode }) {
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const gate = useJob((j) => j.gate)
  const setting = useJob((j) => j.setting)
  const ask = useRef<((to: string) => void) | null>(null)
  // The socket station computes the order itself, with the light and the magnification in hand.
  const ordersItself = stationOfPath(usePathname()) === 'socket'
  const key = useMemo(() => {
    const asked = toAdvise(state, socket, gate, setting)
    return JSON.stringify(ordersItself ? { ...asked, order: null } : asked)
  }, [state, socket, gate, setting, ordersItself])

  const kept = useJob((j) => j.keptBelief)
  // What was kept with the tape is shown at once; the worker answers the same a moment later.
  const [answer, setAnswer] = useState<{ to: string; reckoned: Reckoned } | null>(
    kept && { to: key, reckoned: { belief: kept, work: null } },
  )
  const [failed, setFailed] = useState(false)

  useEffect(() => {
    const thread = new Worker(new URL('../workers/advise.worker.ts', import.meta.url), { type: 'module' })
    const remote = remoteOf<AdviseWorker>(thread)
    const loaded = remote.load(socket)
    ask.current = latestOnly(async (to) => {
      try {
        await loaded
        const reckoned = await remote.reckon(JSON.parse(to) as ToAdvise)
        setAnswer({ to, reckoned })
        setFailed(false)
      } catch {
        if (ask.current) setFailed(true)
      }
    })
    return () => {
      ask.current = null
      thread.terminate()
    }
  }, [socket])
  useEffect(() => ask.current?.(key), [key, socket])
  const fresh = answer?.to === key
  // What was before its last line is no answer once the newer one does not come.
  const lost = failed && !fresh
  const value = useMemo(
    (): Advice => ({ ...((lost ? null : answer?.reckoned) ?? nothing), fresh, failed: lost }),
    [answer, fresh, lost],
  )
  return <Context value={value}>{children}</Context>
}

export const useAdvice = (): Advice => useContext(Context)
