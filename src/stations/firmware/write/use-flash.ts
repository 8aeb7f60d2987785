'use client'
import { useCallback, useEffect, useState } from 'react'
import type { FlashSession } from '@/core/firmware/flash/session'
import { useJob } from '@/job/JobProvider'
import type { BenchFault } from '@/simulated-bench/bench-faults'

const ASKED_EVERY_MS = 400

/** The last session at this job's chip: begun, stopped, gone on with; while it runs the server is asked how far it is. */
export function useFlash() {
  const tag = useJob((j) => j.tag)
  const poll = useJob((j) => j.poll)
  const askServer = useJob((j) => j.ask)
  const [session, setSession] = useState<FlashSession | null | undefined>(undefined)
  const [say, setSay] = useState('')
  const ask = useCallback(
    async (method: 'GET' | 'POST' | 'DELETE', body?: object) => {
      try {
        const answer = body
          ? await askServer('flash', {
              method,
              headers: { 'content-type': 'application/json' },
              body: JSON.stringify(body),
            })
          : await fetch(`/api/jobs/${tag}/flash`, { method })
        const reply = (await answer.json()) as { session?: FlashSession | null; error?: { text: string } }
        if (reply.error) return setSay(reply.error.text)
        setSay('')
        setSession(reply.session ?? null)
        // What it put on the tape is fetched at once.
        if (reply.session?.ended === 'verified') void poll()
      } catch {
        setSay('The server does not answer. The session goes on by itself; this looks again in a moment.')
      }
    },
    [tag, poll, askServer],
  )
  const running = session != null && session.ended === null
  useEffect(() => {
    const first = setTimeout(() => void ask('GET'), 0)
    if (!running) return () => clearTimeout(first)
    const timer = setInterval(() => void ask('GET'), ASKED_EVERY_MS)
    return () => {
      clearTimeout(first)
      clearInterval(timer)
    }
  }, [running, ask])
  return {
    session,
    running,
    say,
    begin: (of: { image: string; release: string | null; despite: readonly string[]; fault: BenchFault }) =>
      ask('POST', { id: crypto.randomUUID(), ...of }),
    stop: () => ask('DELETE'),
  }
}
