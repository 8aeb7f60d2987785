import type { Account, SessionRow } from '@/data/accounts'
import { Button } from '@/ui/Button'
import { When } from '@/ui/When'
import { AddAccount } from './AddAccount'
import { OwnersKept } from './OwnersKept'
import { ChangePassword, ResetPassword } from './PasswordForms'
import { revokeSessionAction, setAccountOpenAction } from './sign-in-actions'

interface Props {
  readonly me: Account
  readonly accounts: readonly (Account & { readonly disabledAt: string | null; readonly sessions: number })[]
  readonly sessions: readonly (SessionRow & { readonly here: boolean })[]
  /** How long owners’ names are kept, and of how many jobs they are old. */
  readonly owners: { readonly months: number | null; readonly due: number }
}

/** Who works here, and where I am signed in. */
export function People({ me, accounts, sessions, owners }: Props) {
  const lead = me.role === 'lead'
  return (
    <div className="grid grid-cols-2 gap-x-10">
      <section>
        <h1>
          {accounts.length === 1
            ? 'You are the only one so far.'
            : `${accounts.length} people at this bench.`}
        </h1>
        <ul className="mt-3">
          {accounts.map((a) => (
            <li key={a.id} className="flex items-baseline justify-between gap-4 border-t border-line py-2">
              <span className="min-w-0">
                <b className="font-semibold">{a.name}</b>{' '}
                <span className="text-soft">
                  {a.role}, signs in as {a.login}
                  {a.disabledAt
                    ? '; closed'
                    : a.sessions > 0
                      ? `; ${a.sessions} open ${a.sessions === 1 ? 'session' : 'sessions'}`
                      : ''}
                </span>
                {lead && a.id !== me.id && <ResetPassword id={a.id} name={a.name} />}
              </span>
              {lead && a.id !== me.id && (
                <form action={setAccountOpenAction}>
                  <input type="hidden" name="id" value={a.id} />
                  <input type="hidden" name="open" value={a.disabledAt ? 'true' : 'false'} />
                  <Button
                    type="submit"
                    look="bare"
                    aria-label={a.disabledAt ? `Open ${a.name}’s account` : `Close ${a.name}’s account`}
                  >
                    {a.disabledAt ? 'Open again' : 'Close'}
                  </Button>
                </form>
              )}
            </li>
          ))}
        </ul>
        {lead && <AddAccount />}
        {lead && <OwnersKept {...owners} />}
      </section>
      <section>
        <ChangePassword />
        <h2 className="mt-6">Where you are signed in</h2>
        <ul className="mt-3">
          {sessions.map((s) => (
            <li
              key={s.tokenHash}
              className="flex items-baseline justify-between gap-4 border-t border-line py-2"
            >
              <span className="min-w-0">
                <When at={s.createdAt} />
                {s.here && <b className="font-semibold text-verd"> here</b>}
                <span className="block truncate text-[0.9rem] text-soft">{s.agent || 'unknown browser'}</span>
              </span>
              {!s.here && (
                <form action={revokeSessionAction}>
                  <input type="hidden" name="session" value={s.tokenHash} />
                  <Button type="submit" look="bare" className="whitespace-nowrap">
                    End it
                  </Button>
                </form>
              )}
            </li>
          ))}
        </ul>
      </section>
    </div>
  )
}
