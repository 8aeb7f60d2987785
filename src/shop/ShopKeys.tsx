'use client'
import { useState } from 'react'
import { GlossarySheet } from '@/frame/GlossarySheet'
import { KeysSheet } from '@/frame/KeysSheet'
import { useKeyHint, useKeys } from '@/frame/use-keys'

/** The keys and the words, also outside a job. */
export function ShopKeys() {
  const [open, setOpen] = useState<'keys' | 'words' | null>(null)
  const hint = useKeyHint()
  useKeys({ keys: () => setOpen('keys'), glossary: () => setOpen('words') })
  const link = 'underline decoration-line underline-offset-4'
  return (
    <span className="flex gap-3 text-[0.9rem] text-soft">
      <button type="button" className={link} onClick={() => setOpen('keys')}>
        keys <kbd className="num">{hint('keys') ?? '?'}</kbd>
      </button>
      <button type="button" className={link} onClick={() => setOpen('words')}>
        words
      </button>
      <KeysSheet open={open === 'keys'} station={null} onClose={() => setOpen(null)} />
      <GlossarySheet open={open === 'words'} onClose={() => setOpen(null)} />
    </span>
  )
}
