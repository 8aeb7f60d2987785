import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import {
  accountOf,
  createAccount,
  listAccounts,
  openSession,
  revokeSession,
  sessionsOf,
  setAccountOpen,
  signIn,
  signOut,
} from './accounts'
import { describeDatabase } from './database.testing'

const word = 'a long enough word'
const fresh = (role: 'lead' | 'technician' = 'technician') =>
  createAccount(`t-${randomUUID().slice(0, 12)}`, 'Test', role, word)
const address = () => randomUUID()

describeDatabase('accounts', (owner) => {
  it('sign in by name, whatever its case, and are known by their session until it is ended', async () => {
    const account = await fresh()
    const done = await signIn(account.login.toUpperCase(), word, address(), 'browser')
    if (!done.ok) throw new Error('refused')
    expect(await accountOf(done.token)).toEqual(account)
    const [session] = await sessionsOf(account.id, done.token)
    expect(session).toMatchObject({ agent: 'browser', here: true })
    await revokeSession(account.id, session!.tokenHash)
    expect(await accountOf(done.token)).toBeNull()
  })
  it('never keep the word or the session’s own word', async () => {
    const account = await fresh()
    const { token } = await openSession(account.id, '')
    const { rows } = await owner().query(
      'select password_hash, token_hash from account a join session s on s.account_id = a.id where a.id = $1',
      [account.id],
    )
    expect(rows[0].password_hash).toMatch(/^\$argon2id\$/)
    expect(rows[0].token_hash).not.toContain(token)
  })
  it('are shut to guessing after five tries, also for the right word, and to no one else', async () => {
    const account = await fresh()
    const from = address()
    for (let i = 0; i < 5; i++)
      expect(await signIn(account.login, 'wrong', from, '')).toEqual({ ok: false, why: 'wrong' })
    expect(await signIn(account.login, word, from, '')).toEqual({ ok: false, why: 'too many' })
    expect((await signIn((await fresh()).login, word, from, '')).ok).toBe(true)
    await owner().query("update sign_in_attempt set at = now() - interval '11 minutes' where login = $1", [
      account.login,
    ])
    expect((await signIn(account.login, word, from, '')).ok).toBe(true)
  })
  it('of strangers are answered like wrong words, and one address is limited over all names', async () => {
    const from = address()
    for (let i = 0; i < 30; i++)
      expect(await signIn(`nobody-${randomUUID()}`, 'x', from, '')).toEqual({ ok: false, why: 'wrong' })
    expect(await signIn(`nobody-${randomUUID()}`, 'x', from, '')).toEqual({ ok: false, why: 'too many' })
  })
  it('lose their sessions when they are closed or signed out, or when time is up', async () => {
    const account = await fresh()
    const [one, two, three] = await Promise.all([
      openSession(account.id, ''),
      openSession(account.id, ''),
      openSession(account.id, ''),
    ])
    await signOut(one.token)
    expect(await accountOf(one.token)).toBeNull()
    await owner().query(
      "update session set expires_at = now() - interval '1 minute' where account_id = $1 and revoked_at is null and token_hash = (select max(token_hash) from session where account_id = $1 and revoked_at is null)",
      [account.id],
    )
    expect([await accountOf(two.token), await accountOf(three.token)].filter(Boolean)).toHaveLength(1)
    expect(await setAccountOpen(account.id, false)).toBe('done')
    expect(await accountOf(two.token)).toBeNull()
    expect(await accountOf(three.token)).toBeNull()
    expect(await signIn(account.login, word, address(), '')).toEqual({ ok: false, why: 'wrong' })
    await setAccountOpen(account.id, true)
    expect((await signIn(account.login, word, address(), '')).ok).toBe(true)
  })
  it('never leave the shop without a lead', async () => {
    const lead = await fresh('lead')
    const leads = (await listAccounts()).filter((a) => a.role === 'lead' && !a.disabledAt && a.id !== lead.id)
    for (const other of leads) await setAccountOpen(other.id, false)
    expect(await setAccountOpen(lead.id, false)).toBe('last lead')
    for (const other of leads) await setAccountOpen(other.id, true)
  })
  it('refuse a name that is taken', async () => {
    const account = await fresh()
    await expect(
      createAccount(account.login.toUpperCase(), 'Else', 'technician', word),
    ).rejects.toMatchObject({ code: '23505' })
  })
})
