'use client'
import { useEffect, useRef, useState } from 'react'
import SignaturePad from 'signature_pad'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Sheet } from '@/ui/Sheet'

interface Props {
  readonly open: boolean
  readonly title: string
  /** What is signed, line by line. */
  readonly lines: readonly string[]
  readonly onClose: () => void
  readonly onSigned: (sha256: string) => void
}

/** The owner signs with a finger, a pen or the mouse; what was drawn stays until the server has it. */
export function SignatureSheet({ open, title, ...rest }: Props) {
  return (
    <Sheet open={open} title={title} onClose={rest.onClose} wide>
      {open && <Signing {...rest} />}
    </Sheet>
  )
}

function Signing({ lines, onClose, onSigned }: Omit<Props, 'open' | 'title'>) {
  const tag = useJob((j) => j.tag)
  const canvas = useRef<HTMLCanvasElement>(null)
  const pad = useRef<SignaturePad | null>(null)
  const [say, setSay] = useState('')
  const [busy, setBusy] = useState(false)
  useEffect(() => {
    pad.current = new SignaturePad(canvas.current!, { penColor: '#1f262d', backgroundColor: '#ffffff' })
    return () => pad.current?.off()
  }, [])

  async function keep() {
    if (!pad.current || pad.current.isEmpty())
      return setSay('Nothing is signed yet. Sign in the white field.')
    setBusy(true)
    setSay('')
    try {
      const blob = await new Promise<Blob | null>((resolve) => canvas.current!.toBlob(resolve, 'image/png'))
      const answer = await fetch(`/api/jobs/${tag}/photos?purpose=signature`, { method: 'POST', body: blob })
      const reply = (await answer.json()) as { file?: { sha256: string }; error?: { text: string } }
      if (reply.file) return onSigned(reply.file.sha256)
      setSay(reply.error?.text ?? 'The server refused it.')
    } catch {
      setSay('The server does not answer. The signature stays here; try again in a moment.')
    }
    setBusy(false)
  }

  return (
    <>
      <ul className="mb-3 list-[square] pl-5 text-[1.06rem] leading-relaxed">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <canvas
        ref={canvas}
        width={680}
        height={170}
        className="w-full touch-none border-b-2 border-ink bg-white"
        aria-label="Field to sign in"
      />
      {say && (
        <p role="alert" className="mt-2 font-semibold text-ember">
          {say}
        </p>
      )}
      <div className="mt-3 flex gap-2">
        <Button look="first" onClick={() => void keep()} disabled={busy}>
          {busy ? 'Keeping…' : 'Keep the signature'}
        </Button>
        <Button onClick={() => pad.current?.clear()}>Start again</Button>
        <Button look="bare" onClick={onClose}>
          Not now
        </Button>
      </div>
      <p className="mt-3 text-[0.9rem] text-soft">
        No way to sign here? Put this away and choose on paper, or by telephone.
      </p>
    </>
  )
}
