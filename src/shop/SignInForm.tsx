'use client'
import { useActionState } from 'react'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { signInAction } from './sign-in-actions'

/** Sign-in; the demo shop shows its own names, one press each. */
export function SignInForm({ back, demo }: { back: string; demo: boolean }) {
  const [state, act, busy] = useActionState(signInAction, { faults: {}, typed: {} })
  return (
    <>
      <form action={act} className="flex flex-col gap-4">
        <input type="hidden" name="back" value={back} />
        <TextField
          label="Name"
          name="login"
          autoComplete="username"
          autoCapitalize="none"
          defaultValue={state.typed.login}
          error={state.faults.login}
          autoFocus
          required
        />
        <TextField
          label="Password"
          name="password"
          type="password"
          autoComplete="current-password"
          required
        />
        <Button type="submit" look="first" disabled={busy}>
          {busy ? 'Signing in…' : 'Sign in'}
        </Button>
      </form>
      {demo && (
        <div className="mt-8 border-t border-line pt-4">
          <p className="mb-2 text-soft">This is the demo shop. Everybody’s password is quay-bench-demo.</p>
          <form action={act} className="flex flex-wrap gap-2">
            <input type="hidden" name="back" value={back} />
            <input type="hidden" name="password" value="quay-bench-demo" />
            {[
              ['ines', 'Ines, lead'],
              ['tolliver', 'Tolliver'],
              ['maren', 'Maren'],
            ].map(([login, words]) => (
              <Button key={login} type="submit" name="login" value={login} disabled={busy}>
                {words}
              </Button>
            ))}
          </form>
        </div>
      )}
    </>
  )
}
