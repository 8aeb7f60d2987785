'use client'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { Button } from '@/ui/Button'

/** Reads a job's ZIP back in, as a job of its own. */
export function ImportJob() {
  const router = useRouter()
  const input = useRef<HTMLInputElement>(null)
  const [say, setSay] = useState('')
  /** The job that the file is, where it is here already. */
  const [here, setHere] = useState('')
  const [busy, setBusy] = useState(false)
  async function send(file: File) {
    setBusy(true)
    setSay('')
    setHere('')
    try {
      const answer = await fetch(`/api/jobs/import?id=${crypto.randomUUID()}`, { method: 'POST', body: file })
      const said = (await answer.json()) as {
        tag?: string
        known?: boolean
        error?: { text: string }
      }
      if (said.tag && said.known) return setHere(said.tag)
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
        aria-label="Job ZIP to import"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void send(file)
        }}
      />
      <Button onClick={() => input.current?.click()} disabled={busy}>
        {busy ? 'Reading…' : 'Import a job ZIP'}
      </Button>
      {here && (
        <p role="status" className="mt-1 max-w-72">
          This job is here already:{' '}
          <Link href={`/jobs/${here}/intake`} className="num underline">
            {here}
          </Link>
          . It is not laid a second time.
        </p>
      )}
      {say && (
        <p role="alert" className="mt-1 max-w-72 text-ember">
          {say}
        </p>
      )}
    </div>
  )
}
