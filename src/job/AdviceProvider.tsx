'use client'
import type { Remote } from 'comlink'
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
  /** The odds follow from the tape as it stands; otherwise newer ones are under way. The order of work always does. */
  readonly fresh: boolean
  /** Something of it could not be calculated: of that there is none. */
  readonly failed: boolean
}

const nothing: Advice = { belief: null, work: null, fresh: false, failed: false }
const Context = createContext<Advice>(nothing)

/** An answer, and what it is one to. */
interface Answer<A> {
  readonly to: string
  readonly is: A
}
const NOTHING_ASKED = 'null'

/**
 * Odds and order of work of a job, computed in a worker once for all its stations; the last odds stay until the next. What
 * was kept with the tape is not computed again.
 */
export function AdviceProvider({ children }: { children: ReactNode }) {
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const gate = useJob((j) => j.gate)
  const setting = useJob((j) => j.setting)
  // The socket station computes the order itself, with the light and the magnification in hand.
  const ordersItself = stationOfPath(usePathname()) === 'socket'
  const [believe, order] = useMemo(() => {
    const asked = toAdvise(state, socket, gate, setting)
    return [JSON.stringify(asked.believe), JSON.stringify(ordersItself ? null : asked.order)]
  }, [state, socket, gate, setting, ordersItself])

  const kept = useJob((j) => j.keptBelief)
  const [odds, setOdds] = useState<Answer<Reckoned['belief']> | null>(kept && { to: believe, is: kept })
  const [work, setWork] = useState<Answer<Reckoned['work']> | null>(null)
  const [failed, setFailed] = useState(false)
  const fresh = believe === NOTHING_ASKED || odds?.to === believe
  const ordered = order === NOTHING_ASKED || work?.to === order

  const ask = useRef<((to: { readonly believe: string; readonly order: string }) => void) | null>(null)
  useEffect(() => {
    let own: { readonly thread: Worker; readonly remote: Remote<AdviseWorker> } | null = null
    const begun = async () => {
      if (!own) {
        const thread = new Worker(new URL('../workers/advise.worker.ts', import.meta.url), { type: 'module' })
        own = { thread, remote: remoteOf<AdviseWorker>(thread) }
        await own.remote.load(socket)
      }
      return own.remote
    }
    ask.current = latestOnly(async (to) => {
      try {
        const remote = await begun()
        const asked = { believe: JSON.parse(to.believe), order: JSON.parse(to.order) } as ToAdvise
        const answer = await remote.reckon(asked)
        if (asked.believe) setOdds({ to: to.believe, is: answer.belief })
        if (asked.order) setWork({ to: to.order, is: answer.work })
        setFailed(false)
      } catch {
        if (ask.current) setFailed(true)
      }
    })
    return () => {
      ask.current = null
      own?.thread.terminate()
    }
  }, [socket])
  useEffect(() => {
    if (!fresh || !ordered)
      ask.current?.({ believe: fresh ? NOTHING_ASKED : believe, order: ordered ? NOTHING_ASKED : order })
  }, [believe, order, fresh, ordered, socket])
  const value = useMemo((): Advice => {
    const lost = failed && !fresh
    return {
      // What was before its last line is no answer once the newer one does not come.
      belief: believe === NOTHING_ASKED || lost ? null : (odds?.is ?? null),
      work: order !== NOTHING_ASKED && ordered ? (work?.is ?? null) : null,
      fresh,
      failed: failed && !(fresh && ordered),
    }
  }, [believe, order, odds, work, fresh, ordered, failed])
  return <Context value={value}>{children}</Context>
}

export const useAdvice = (): Advice => useContext(Context)
