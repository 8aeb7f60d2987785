'use client'
import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { Button } from '@/ui/Button'

/** Reads a job's ZIP back in, as a job of its own. */
export function ImportJob() {
  const router = useRouter()
  const input = useRef<HTMLInputElement>(null)
  const [say, setSay] = useState('')
  const [busy, setBusy] = useState(false)
  async function send(file: File) {
    setBusy(true)
    setSay('')
    try {
      const answer = await fetch(`/api/jobs/import?id=${crypto.randomUUID()}`, { method: 'POST', body: file })
      const said = (await answer.json()) as { tag?: string; error?: { text: string } }
      if (said.tag) return router.push(`/jobs/${said.tag}/intake`)
      setSay(said.error?.text ?? 'The server refused it.')
    } catch {
      setSay('The server does not answer. The file was not sent.')
    } finally {
      setBusy(false)
    }
  }
  return (
    <div className="text-right">
      <input
        ref={input}
        type="file"
        accept=".zip,application/zip"
        className="sr-only"
        aria-label="Job ZIP to read in"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void send(file)
        }}
      />
      <Button onClick={() => input.current?.click()} disabled={busy}>
        {busy ? 'Reading…' : 'Read in a job ZIP'}
      </Button>
      {say && (
        <p role="alert" className="mt-1 max-w-72 text-ember">
          {say}
        </p>
      )}
    </div>
  )
}
