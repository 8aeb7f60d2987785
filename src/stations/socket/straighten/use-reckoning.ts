'use client'
import { toReckon, worthOf } from '@/core/job/advise'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { PushAdvice } from '@/core/socket/straighten/push'
import type { Reckoning, ToGiveBack, ToReckon, ToWeigh } from '@/core/socket/straighten/reckon'
import type { GivenBack } from '@/core/socket/replace/replacement'
import type { SnapFactors } from '@/core/socket/straighten/technique'
import type { Socket } from '@/core/socket/model/socket'
import { useJob } from '@/job/JobProvider'
import { latestOnly } from '@/job/latest-only'
import { remoteOf } from '@/ui/remote'
import type { ReckonWorker } from '@/workers/reckon.worker'

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
  const figures = useJob((j) => j.setting.figures)
  const [answer, setAnswer] = useState<{ to: string; reckoning: Reckoning } | null>(null)
  const [failed, setFailed] = useState(false)
  const worker = useRef<Remote<ReckonWorker> | null>(null)
  const ask = useRef<((to: string) => void) | null>(null)

  // By what is asked, not by when: a line that has come to the server asks nothing new.
  const asked = useMemo(
    () => JSON.stringify(toReckon(state, socket, worthOf(valueMinor, figures), factors)),
    [state, socket, valueMinor, figures, factors],
  )

  useEffect(() => {
    const thread = new Worker(new URL('../../../workers/reckon.worker.ts', import.meta.url), {
      type: 'module',
    })
    const remote = remoteOf<ReckonWorker>(thread)
    worker.current = remote
    const loaded = remote.load(socket)
    ask.current = latestOnly(async (to) => {
      try {
        await loaded
        const reckoning = await remote.reckon(JSON.parse(to) as ToReckon)
        if (reckoning) setAnswer({ to, reckoning })
        setFailed(false)
      } catch {
        setFailed(true)
      }
    })
    return () => {
      worker.current = null
      ask.current = null
      thread.terminate()
    }
  }, [socket])

  useEffect(() => ask.current?.(asked), [asked, socket])

  const lost = useCallback(() => {
    setFailed(true)
    return null
  }, [])
  const weigh = useCallback(
    async (to: ToWeigh) => (await worker.current?.weigh(to).catch(lost)) ?? null,
    [lost],
  )
  const giveBack = useCallback(
    async (to: ToGiveBack) => (await worker.current?.giveBack(to).catch(lost)) ?? null,
    [lost],
  )
  return { reckoning: answer?.reckoning ?? null, fresh: answer?.to === asked, failed, weigh, giveBack }
}
