import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import {
  accountOf,
  changePassword,
  createAccount,
  listAccounts,
  openSession,
  resetPassword,
  revokeSession,
  sessionsOf,
  setAccountOpen,
  signIn,
  signOut,
} from './accounts'
import { describeDatabase } from './database.testing'

const word = 'a long enough word'
const fresh = (role: 'lead' | 'technician' = 'technician') =>
  createAccount(`t-${randomUUID().slice(0, 12)}`, `Test ${randomUUID()}`, role, word)
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
    await owner().query('update sign_in_limit set expire = 0')
    expect((await signIn(account.login, word, from, '')).ok).toBe(true)
  })
  it('are not shut by a stranger elsewhere, whose tries count before they are hashed', async () => {
    const account = await fresh()
    const stranger = address()
    const tries = await Promise.all(
      Array.from({ length: 12 }, () => signIn(account.login, 'wrong', stranger, '')),
    )
    const why = tries.map((t) => (t.ok ? 'in' : t.why))
    expect(why.filter((w) => w === 'wrong')).toHaveLength(5)
    expect(why.filter((w) => w === 'too many')).toHaveLength(7)
    expect((await signIn(account.login, word, address(), '')).ok).toBe(true)
  })
  it('hold from an address they were used at before, however many strangers try', async () => {
    const account = await fresh()
    const home = address()
    expect((await signIn(account.login, word, home, '')).ok).toBe(true)
    await owner().query(
      'insert into sign_in_limit (key, points, expire) values ($1, 1000, $2) on conflict (key) do update set points = 1000',
      [`account:${account.login}`, Date.now() + 600_000],
    )
    expect(await signIn(account.login, word, address(), '')).toEqual({ ok: false, why: 'too many' })
    expect((await signIn(account.login, word, home, '')).ok).toBe(true)
  })
  it('change their password and are signed out elsewhere; a lead sets it anew', async () => {
    const account = await fresh()
    const [here, there] = [await openSession(account.id, ''), await openSession(account.id, '')]
    expect(await changePassword(account, 'not it', 'another long sentence', here.token)).toBe('wrong')
    expect(await changePassword(account, word, 'another long sentence', here.token)).toBe('done')
    expect(await accountOf(here.token)).toEqual(account)
    expect(await accountOf(there.token)).toBeNull()
    expect((await signIn(account.login, word, address(), '')).ok).toBe(false)
    expect((await signIn(account.login, 'another long sentence', address(), '')).ok).toBe(true)
    await resetPassword(account.id, 'set anew by the lead')
    expect(await accountOf(here.token)).toBeNull()
    expect((await signIn(account.login, 'set anew by the lead', address(), '')).ok).toBe(true)
  })
  it('forget sessions long after they ran out', async () => {
    const account = await fresh()
    await openSession(account.id, '')
    await owner().query("update session set expires_at = now() - interval '40 days' where account_id = $1", [
      account.id,
    ])
    await openSession(account.id, '')
    const { rows } = await owner().query('select 1 from session where account_id = $1', [account.id])
    expect(rows).toHaveLength(1)
  })
  it('of strangers are answered like wrong words, and one address is limited over all names', async () => {
    const from = address()
    for (let i = 0; i < 30; i++)
      expect(await signIn(`nobody-${randomUUID()}`, 'x', from, '')).toEqual({ ok: false, why: 'wrong' })
    expect(await signIn(`nobody-${randomUUID()}`, 'x', from, '')).toEqual({ ok: false, why: 'too many' })
  })
  it('lose their sessions when they are closed or signed out, or when time is up', async () => {
    const [account, boss] = [await fresh(), await fresh('lead')]
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
    expect(await setAccountOpen(account.id, false, boss.id)).toBe('done')
    expect(await accountOf(two.token)).toBeNull()
    expect(await accountOf(three.token)).toBeNull()
    expect(await signIn(account.login, word, address(), '')).toEqual({ ok: false, why: 'wrong' })
    await setAccountOpen(account.id, true, boss.id)
    expect((await signIn(account.login, word, address(), '')).ok).toBe(true)
  })
  it('never leave the shop without a lead, also when two close each other', async () => {
    const [one, two] = [await fresh('lead'), await fresh('lead')]
    const others = (await listAccounts()).filter(
      (a) => a.role === 'lead' && !a.disabledAt && a.id !== one.id && a.id !== two.id,
    )
    for (const other of others) await setAccountOpen(other.id, false, one.id)
    const done = await Promise.all([
      setAccountOpen(two.id, false, one.id),
      setAccountOpen(one.id, false, two.id),
    ])
    expect([...done].sort()).toEqual(['done', 'not a lead'])
    const left = (await listAccounts()).find((a) => a.role === 'lead' && !a.disabledAt)!
    expect(await setAccountOpen(left.id, false, left.id)).toBe('last lead')
    expect(await setAccountOpen(left.id, false, (await fresh()).id)).toBe('not a lead')
    for (const other of [...others, one, two]) await setAccountOpen(other.id, true, left.id)
  })
  it('refuse a name that is taken', async () => {
    const account = await fresh()
    await expect(
      createAccount(account.login.toUpperCase(), 'Else', 'technician', word),
    ).rejects.toMatchObject({ code: '23505' })
    await expect(
      createAccount(`t-${randomUUID().slice(0, 12)}`, account.name.toUpperCase(), 'technician', word),
    ).rejects.toMatchObject({ code: '23505', constraint: 'account_name' })
  })
})
