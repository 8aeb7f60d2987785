'use client'
import { useActionState } from 'react'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { changePasswordAction, resetPasswordAction } from './sign-in-actions'
import type { FormState } from './sign-in-actions'

const nothing: FormState = { faults: {}, typed: {} }

/** Another password for myself. */
export function ChangePassword() {
  const [state, act, busy] = useActionState(changePasswordAction, nothing)
  return (
    <form action={act} className="flex flex-col gap-3">
      <h2>Your password</h2>
      <TextField
        label="As it is now"
        name="before"
        type="password"
        autoComplete="current-password"
        error={state.faults.before}
      />
      <NewPassword
        state={state}
        busy={busy}
        label="New password"
        hint="twelve characters or more"
        keep="Change it"
      />
    </form>
  )
}

/** The lead sets somebody’s password anew: it is told them, and they change it. */
export function ResetPassword({ id, name }: { id: string; name: string }) {
  const [state, act, busy] = useActionState(resetPasswordAction, nothing)
  return (
    <details className="mt-1">
      <summary className="text-[0.94rem] text-soft">Reset {name}’s password</summary>
      <form action={act} className="mt-2 flex flex-col gap-2">
        <input type="hidden" name="id" value={id} />
        <NewPassword
          state={state}
          busy={busy}
          label={`New password for ${name}`}
          hint="twelve characters or more; every session of the account is ended"
          keep="Set it"
        />
      </form>
    </details>
  )
}

function NewPassword({
  state,
  busy,
  label,
  hint,
  keep,
}: {
  state: FormState
  busy: boolean
  label: string
  hint: string
  keep: string
}) {
  return (
    <>
      <TextField
        label={label}
        name="password"
        type="password"
        autoComplete="new-password"
        error={state.faults.password}
        hint={hint}
      />
      <div className="flex items-center gap-4">
        <Button type="submit" disabled={busy}>
          {keep}
        </Button>
        {state.done && (
          <p role="status" className="text-verd">
            {state.done}
          </p>
        )}
      </div>
    </>
  )
}
