'use client'
import { createContext, useContext, useEffect, useMemo, useState } from 'react'
import type { ReactNode } from 'react'
import { useStore } from 'zustand'
import type { Socket } from '@/core/socket/model/socket'
import { createJobStore } from './job-store'
import type { JobSeed, JobStore } from './job-store'

const Context = createContext<ReturnType<typeof createJobStore> | null>(null)

const POLL_MS = 8000

/** A job as it is sent: the socket as one text, which is read sooner than the thousands of values in it. */
export interface SentJob extends Omit<JobSeed, 'socket'> {
  readonly socket: string | null
}

/** Holds one job for all its stations; sends what waits, and asks now and then what others wrote. */
export function JobProvider({ sent, children }: { sent: SentJob; children: ReactNode }) {
  const socket = useMemo(() => (sent.socket ? (JSON.parse(sent.socket) as Socket) : null), [sent.socket])
  const seed = useMemo((): JobSeed => ({ ...sent, socket }), [sent, socket])
  const [store] = useState(() => createJobStore(seed))
  useEffect(() => {
    const { restore, poll, send } = store.getState()
    void restore()
    const look = () => void (document.visibilityState === 'visible' && poll())
    const timer = setInterval(look, POLL_MS)
    const back = () => void send()
    window.addEventListener('focus', look)
    window.addEventListener('online', back)
    return () => {
      clearInterval(timer)
      window.removeEventListener('focus', look)
      window.removeEventListener('online', back)
    }
  }, [store])
  useEffect(() => void store.getState().refreshContext(seed), [store, seed])
  return <Context value={store}>{children}</Context>
}

export function useJob<T>(select: (job: JobStore) => T): T {
  const store = useContext(Context)
  if (!store) throw new Error('useJob outside a job')
  return useStore(store, select)
}
