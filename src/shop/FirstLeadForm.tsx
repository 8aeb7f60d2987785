'use client'
import { useActionState } from 'react'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { firstLeadAction } from './sign-in-actions'

export function FirstLeadForm() {
  const [state, act, busy] = useActionState(firstLeadAction, { faults: {}, typed: {} })
  return (
    <form action={act} className="flex flex-col gap-4">
      <TextField
        label="Your name at the bench"
        name="name"
        defaultValue={state.typed.name}
        error={state.faults.name}
        autoFocus
        required
      />
      <TextField
        label="Sign-in name"
        name="login"
        autoCapitalize="none"
        defaultValue={state.typed.login}
        error={state.faults.login}
        hint="Small letters, figures, dots or dashes."
        required
      />
      <TextField
        label="Password"
        name="password"
        type="password"
        autoComplete="new-password"
        error={state.faults.password}
        hint="Twelve characters or more; a short sentence is easiest."
        required
      />
      <TextField
        label="Code"
        name="code"
        autoComplete="off"
        error={state.faults.code}
        hint="The start command printed it."
        required
      />
      <Button type="submit" look="first" disabled={busy}>
        Open the shop
      </Button>
    </form>
  )
}
