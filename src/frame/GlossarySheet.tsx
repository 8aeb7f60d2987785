'use client'
import { useEffect, useState } from 'react'
import type { GlossaryWord } from '@/core/tables/glossary'
import { Sheet } from '@/ui/Sheet'

/** The words of the trade as they are used here, with what each means. */
export function GlossarySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [words, setWords] = useState<readonly GlossaryWord[] | 'none' | null>(null)
  useEffect(() => {
    if (!open || Array.isArray(words)) return
    let on = true
    fetch('/api/words')
      .then((answer) => answer.json() as Promise<readonly GlossaryWord[]>)
      .then(
        (all) => on && setWords(all),
        () => on && setWords('none'),
      )
    return () => {
      on = false
    }
  }, [open, words])
  return (
    <Sheet open={open} title="Words" onClose={onClose} wide>
      {words === null && <p className="text-soft">Fetching them…</p>}
      {words === 'none' && (
        <p className="text-soft">The server does not answer. Open them again in a moment.</p>
      )}
      {Array.isArray(words) && (
        <dl className="grid gap-x-5 sm:grid-cols-[10rem_1fr]">
          {(words as readonly GlossaryWord[]).map(({ word, elsewhere, means }) => (
            <div key={word} className="contents">
              <dt className="border-t border-line py-1 font-semibold">{word}</dt>
              <dd className="border-line py-1 sm:border-t">
                {means}
                {elsewhere && <span className="text-soft"> (also: {elsewhere})</span>}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </Sheet>
  )
}
