'use client'
import { toReckon, worthOf } from '@/core/job/advise'

import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { PushAdvice } from '@/core/socket/push'
import type { Reckoning, ToGiveBack, ToReckon, ToWeigh } from '@/core/socket/reckon'
import type { GivenBack } from '@/core/socket/replacement'
import type { SnapFactors } from '@/core/socket/technique'
import type { Socket } from '@/core/socket/socket'
import { useJob } from '@/stations/job/JobProvider'
import type { ReckonDesk } from '@/workers/reckon.worker'

/** Odds, order and outlook of the field, reckoned in a worker; while a newer one is under way the last one stays. */
export function useReckoning(
  socket: Socket,
  factors: SnapFactors,
): {
  readonly reckoning: Reckoning | null
  readonly fresh: boolean
  /** The last reckoning went wrong; the odds shown are older. */
  readonly failed: boolean
  readonly weigh: (asked: ToWeigh) => Promise<PushAdvice | null>
  readonly giveBack: (asked: ToGiveBack) => Promise<GivenBack[] | null>
} {
  const state = useJob((j) => j.state.socket)
  const valueMinor = useJob((j) => j.state.intake.ticket.valueMinor)
  const figures = useJob((j) => j.figures)
  const [answer, setAnswer] = useState<{ to: ToReckon; reckoning: Reckoning } | null>(null)
  const [failed, setFailed] = useState(false)
  const desk = useRef<Remote<ReckonDesk> | null>(null)
  const latest = useRef<ToReckon | null>(null)
  const busy = useRef(false)

  const asked = useMemo(
    () => toReckon(state, socket, worthOf(valueMinor, figures), factors),
    [state, socket, valueMinor, figures, factors],
  )

  useEffect(() => {
    const worker = new Worker(new URL('../../workers/reckon.worker.ts', import.meta.url), { type: 'module' })
    desk.current = wrap<ReckonDesk>(worker)
    void desk.current.load(socket)
    return () => {
      desk.current = null
      busy.current = false
      worker.terminate()
    }
  }, [socket])

  useEffect(() => {
    latest.current = asked
    if (busy.current) return
    busy.current = true
    const work = async () => {
      while (desk.current && latest.current) {
        const to: ToReckon = latest.current
        latest.current = null
        const reckoning = await desk.current.reckon(to)
        if (reckoning) setAnswer({ to, reckoning })
      }
    }
    // One reckoning that throws must not freeze the odds for the session: the next one is asked all the same.
    void work()
      .then(() => setFailed(false))
      .catch(() => setFailed(true))
      .finally(() => {
        busy.current = false
      })
  }, [asked, socket])

  const weigh = useCallback(async (to: ToWeigh) => (desk.current ? desk.current.weigh(to) : null), [])
  const giveBack = useCallback(
    async (to: ToGiveBack) => (desk.current ? desk.current.giveBack(to) : null),
    [],
  )
  return { reckoning: answer?.reckoning ?? null, fresh: answer?.to === asked, failed, weigh, giveBack }
}
