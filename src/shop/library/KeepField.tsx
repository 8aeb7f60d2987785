'use client'
import { useState } from 'react'
import type { FormEvent } from 'react'
import type { Finding } from '@/core/tables/finding'
import type { Socket } from '@/core/socket/model/socket'
import { contactCsv } from '@/tables/contact-csv'
import { saveFile } from '@/ui/save-file'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { Findings } from '@/ui/Findings'

/** Names an edited field and keeps it in the library, or takes its table away as CSV. */
export function KeepField({
  socket,
  from,
  onKept,
}: {
  socket: Socket
  from: Socket
  onKept: (id: string) => void
}) {
  const [name, setName] = useState('')
  const [fault, setFault] = useState('')
  const [findings, setFindings] = useState<readonly Finding[]>([])
  const [busy, setBusy] = useState(false)
  const keep = async (event: FormEvent) => {
    event.preventDefault()
    if (name.trim() === from.name)
      return setFault(`${from.name} is the one it was made from; give it another name.`)
    setBusy(true)
    setFault('')
    setFindings([])
    try {
      const answer = await fetch('/api/sockets', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name, kind: socket.kind, look: false, csv: contactCsv(socket) }),
      })
      const said = (await answer.json()) as {
        kept?: string | null
        findings?: Finding[]
        error?: { text: string }
      }
      if (said.kept) return onKept(said.kept)
      setFault(said.error?.text ?? 'The table has faults; they stand below.')
      setFindings(said.findings ?? [])
    } catch {
      setFault('The server does not answer. What you changed stays here; try again in a moment.')
    }
    setBusy(false)
  }
  const save = () =>
    saveFile(
      new Blob([contactCsv(socket)], { type: 'text/csv' }),
      `${(name || from.name).replace(/[^\w.-]/g, '_')}.csv`,
    )
  return (
    <form onSubmit={(event) => void keep(event)} className="flex flex-col gap-2 border-t border-line pt-2">
      <TextField
        label="Keep it as"
        value={name}
        placeholder={`${from.name} rev B`}
        error={fault}
        onChange={(e) => setName(e.target.value)}
      />
      <Findings findings={findings} />
      <p className="flex gap-2">
        <Button type="submit" look="first" disabled={busy || name.trim().length < 2}>
          Keep it
        </Button>
        <Button look="bare" onClick={save}>
          The table as CSV
        </Button>
      </p>
    </form>
  )
}
