'use client'
import { useEffect, useState } from 'react'
import type { JobLink } from '@/data/job-links'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { When } from '@/ui/When'
import { typedNumber } from '@/ui/typed-number'

/** Days a link opens unless told otherwise (bench default). */
const DAYS = '60'

/** Links to this job, to its owner or to whoever is asked on a line: each is shown once, and closed by a press. */
export function JobLinks({ asked, usually = DAYS }: { asked: number | null; usually?: string }) {
  const tag = useJob((j) => j.tag)
  const erased = useJob((j) => j.customer?.erased ?? false)
  const [links, setLinks] = useState<readonly JobLink[]>([])
  const [made, setMade] = useState('')
  const [days, setDays] = useState(usually)
  const [fault, setFault] = useState('')
  const [copied, setCopied] = useState(false)
  const at = `/api/jobs/${tag}/links`
  useEffect(() => {
    const control = new AbortController()
    void fetch(asked === null ? at : `${at}?asked=${asked}`, { signal: control.signal })
      .then(async (answer) => {
        if (answer.ok) setLinks(((await answer.json()) as { links: readonly JobLink[] }).links)
      })
      .catch(() => undefined)
    return () => control.abort()
  }, [at, asked, erased])
  async function ask(method: 'POST' | 'DELETE', body: object) {
    setFault('')
    try {
      const answer = await fetch(at, {
        method,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...body, asked }),
      })
      const reply = (await answer.json()) as {
        links?: readonly JobLink[]
        path?: string
        error?: { text: string }
      }
      if (reply.error) return setFault(reply.error.text)
      setLinks(reply.links ?? [])
      setMade(reply.path ? `${window.location.origin}${reply.path}` : '')
      setCopied(false)
    } catch {
      setFault('The server does not answer. Try again in a moment.')
    }
  }
  const open = typedNumber(days)
  const wrong = !(Number.isInteger(open) && open >= 1 && open <= 365)
  return (
    <div>
      {made && (
        <div className="mt-2 border-l-4 border-verd pl-3">
          <p className="num break-all">{made}</p>
          <p className="mt-1 flex items-center gap-3">
            <Button
              onClick={() =>
                void navigator.clipboard
                  .writeText(made)
                  .then(() => setCopied(true))
                  .catch(() => setFault('The browser does not copy it. Mark it and copy it by hand.'))
              }
            >
              {copied ? 'Copied' : 'Copy'}
            </Button>
            <span className="text-soft">It is shown this once.</span>
          </p>
        </div>
      )}
      <ul className="mt-1">
        {links.map((link) => (
          <li key={link.id} className="flex items-baseline justify-between gap-3 border-b border-line py-1">
            <span>
              made <When at={link.madeAt} as="date" />, opens until <When at={link.expiresAt} as="date" />
            </span>
            <Button look="bare" onClick={() => void ask('DELETE', { id: link.id })}>
              Close it
            </Button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-end gap-3">
        <div className="w-28">
          <TextField
            label="Opens, days"
            className="num"
            inputMode="numeric"
            value={days}
            error={wrong ? '1 to 365' : undefined}
            onChange={(e) => setDays(e.target.value)}
          />
        </div>
        <Button
          disabled={wrong || erased}
          onClick={() => void ask('POST', { id: crypto.randomUUID(), days: open })}
        >
          Make a link
        </Button>
      </div>
      {erased && <p className="mt-1 text-soft">The owner was erased: no link is made.</p>}
      {fault && (
        <p role="alert" className="mt-1 font-semibold text-ember">
          {fault}
        </p>
      )}
    </div>
  )
}
