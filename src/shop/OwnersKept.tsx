'use client'
import { useActionState } from 'react'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { retentionAction } from './retention-actions'

/** For how long the names, contacts and signatures of owners are kept; the technical record stays. */
export function OwnersKept({ months, due }: { months: number | null; due: number }) {
  const [answer, act, busy] = useActionState(retentionAction, { fault: '', typed: null, say: '' })
  return (
    <section className="mt-6" aria-labelledby="owners-kept">
      <h2 id="owners-kept">How long owners’ names are kept</h2>
      <p className="mt-1 max-w-[34rem] text-soft">
        Name, contact and signature go, and links to the job are closed, once every board of an owner has been
        back for so long. What was measured and done stays.
        {months === null &&
          due > 0 &&
          ` Of ${due} ${due === 1 ? 'job' : 'jobs'} it is more than two years ago.`}
      </p>
      <form action={act} key={String(months)} className="mt-2 flex items-end gap-3">
        <TextField
          label="Months after the hand-back"
          name="months"
          className="num w-28"
          inputMode="numeric"
          placeholder="until erased"
          defaultValue={answer.typed ?? (months === null ? '' : String(months))}
          error={answer.fault || undefined}
        />
        <Button type="submit" disabled={busy}>
          {busy ? 'Keeping…' : 'Keep it so'}
        </Button>
      </form>
      <p role="status" className="mt-1 text-verd">
        {answer.say}
      </p>
    </section>
  )
}
