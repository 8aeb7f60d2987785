'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { Finding } from '@/core/tables/finding'

export interface TableAnswer {
  readonly kept?: boolean
  readonly say?: string
  readonly findings?: readonly Finding[]
  /** Open jobs that the change touches. */
  readonly touches?: readonly string[]
  readonly error?: { readonly text: string }
}

/** A table of the library that is read in from CSV and dropped again; what the server says of it stays in sight. */
export function useTable(at: string) {
  const router = useRouter()
  const [answer, setAnswer] = useState<TableAnswer | null>(null)
  const [busy, setBusy] = useState(false)
  async function ask(init: RequestInit): Promise<void> {
    setBusy(true)
    try {
      setAnswer((await (await fetch(at, init)).json()) as TableAnswer)
      router.refresh()
    } catch {
      setAnswer({ error: { text: 'The server does not answer. Nothing was changed; pick the file again.' } })
    }
    setBusy(false)
  }
  return {
    answer,
    busy,
    drop: () => ask({ method: 'DELETE' }),
    send: async (file: File, more: object = {}) =>
      ask({
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ csv: await file.text(), ...more }),
      }),
  }
}
