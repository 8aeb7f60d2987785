'use client'
import type { Bodies, Kind } from '@/core/slices'

import { useState } from 'react'
import { useJob } from '@/job/JobProvider'
import type { SimulatedRequest } from './simulated-entries'

/** The simulated bench, where this board is on it: what its instruments say goes on the tape. */
export function useSimulated() {
  const there = useJob((j) => j.simulated !== 'no')
  const askServer = useJob((j) => j.ask)
  const append = useJob((j) => j.append)
  const [busy, setBusy] = useState(false)
  const [say, setSay] = useState('')
  async function ask(request: Partial<SimulatedRequest>): Promise<void> {
    setBusy(true)
    setSay('')
    try {
      const answer = await askServer('simulated', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(request),
      })
      const reply = (await answer.json()) as {
        entries?: { kind: Kind; body: Bodies[Kind] }[]
        error?: { text: string }
      }
      for (const { kind, body } of reply.entries ?? []) append(kind, body)
      if (reply.error) setSay(reply.error.text)
    } catch {
      setSay('The simulated bench does not answer. Nothing was noted; ask again in a moment.')
    }
    setBusy(false)
  }
  return { there, busy, say, ask }
}
