'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { Button } from '@/ui/Button'
import { useKeyHint, useKeys } from '@/frame/use-keys'

/** Takes in a board: a new job with the next tag. The id is made here, so that a double press makes one job. */
export function TakeIn() {
  const router = useRouter()
  const [id] = useState(() => crypto.randomUUID())
  const [say, setSay] = useState('')
  const [busy, setBusy] = useState(false)
  async function take() {
    setBusy(true)
    setSay('')
    try {
      const answer = await fetch('/api/jobs', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ id }),
      })
      const said = (await answer.json()) as { tag?: string; error?: { text: string } }
      if (said.tag) return router.push(`/jobs/${said.tag}/intake`)
      setSay(said.error?.text ?? 'The server refused it.')
    } catch {
      setSay('The server does not answer. Try again in a moment.')
    }
    setBusy(false)
  }
  const hint = useKeyHint()
  useKeys({ takeIn: () => void take() })
  return (
    <div className="text-right">
      <Button look="first" keyHint={hint('takeIn')} onClick={() => void take()} disabled={busy}>
        New job
      </Button>
      {say && (
        <p role="alert" className="mt-1 max-w-60 text-ember">
          {say}
        </p>
      )}
    </div>
  )
}
