'use client'
import { useActionState } from 'react'
import { Button } from '@/ui/Button'
import { SelectField, TextField } from '@/ui/Field'
import { addAccountAction } from './sign-in-actions'

export function AddAccount() {
  const [state, act, busy] = useActionState(addAccountAction, { faults: {}, typed: {} })
  return (
    <form action={act} className="mt-6 grid grid-cols-2 gap-3">
      <h2 className="col-span-full">Add somebody</h2>
      <TextField
        label="Name at the bench"
        name="name"
        defaultValue={state.typed.name}
        error={state.faults.name}
      />
      <TextField
        label="Sign-in name"
        name="login"
        autoCapitalize="none"
        defaultValue={state.typed.login}
        error={state.faults.login}
      />
      <SelectField
        label="As"
        name="role"
        defaultValue={state.typed.role ?? 'technician'}
        error={state.faults.role}
      >
        <option value="technician">technician</option>
        <option value="lead">lead</option>
      </SelectField>
      <TextField
        label="First password"
        name="password"
        type="password"
        autoComplete="new-password"
        error={state.faults.password}
        hint="twelve characters or more"
      />
      <div className="col-span-full flex items-center gap-4">
        <Button type="submit" look="first" disabled={busy}>
          Add the account
        </Button>
        {state.done && (
          <p role="status" className="text-verd">
            {state.done}
          </p>
        )}
      </div>
    </form>
  )
}
