import 'server-only'
import { hash, verify } from '@node-rs/argon2'
import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { pool } from './pool'

export type Role = 'lead' | 'technician'
export interface Account {
  readonly id: string
  readonly login: string
  readonly name: string
  readonly role: Role
}

export interface SessionRow {
  readonly tokenHash: string
  readonly agent: string
  readonly createdAt: string
  readonly expiresAt: string
}

const SESSION_HOURS = 14
/** Attempts that may fail in ten minutes for one login, and from one address. */
const LOGIN_LIMIT = 5
const ADDRESS_LIMIT = 30

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')

export async function anyAccount(): Promise<boolean> {
  const { rowCount } = await pool().query('select 1 from account limit 1')
  return rowCount === 1
}

/** @throws Error with code 23505 when the login is taken */
export async function createAccount(
  login: string,
  name: string,
  role: Role,
  password: string,
): Promise<Account> {
  const id = randomUUID()
  await pool().query(
    'insert into account (id, login, name, role, password_hash) values ($1, $2, $3, $4, $5)',
    [id, login, name, role, await hash(password)],
  )
  return { id, login, name, role }
}

/** The first account of an empty shop; null when somebody was quicker. */
export async function createFirstLead(
  login: string,
  name: string,
  password: string,
): Promise<Account | null> {
  const id = randomUUID()
  const { rowCount } = await pool().query(
    `insert into account (id, login, name, role, password_hash)
     select $1, $2, $3, 'lead', $4 where not exists (select 1 from account)`,
    [id, login, name, await hash(password)],
  )
  return rowCount === 1 ? { id, login, name, role: 'lead' } : null
}

export async function listAccounts(): Promise<(Account & { disabledAt: string | null; sessions: number })[]> {
  const { rows } = await pool().query(
    `select a.id, a.login, a.name, a.role, a.disabled_at::text as "disabledAt",
            (select count(*)::int from session s where s.account_id = a.id and s.revoked_at is null and s.expires_at > now()) as sessions
     from account a order by a.role, a.name`,
  )
  return rows
}

/** Closes or opens an account; closing ends its sessions. The last open lead cannot be closed. */
export async function setAccountOpen(id: string, open: boolean): Promise<'done' | 'last lead'> {
  if (!open) {
    const { rowCount } = await pool().query(
      "select 1 from account where role = 'lead' and disabled_at is null and id <> $1 limit 1",
      [id],
    )
    const { rows } = await pool().query<{ role: Role }>('select role from account where id = $1', [id])
    if (rows[0]?.role === 'lead' && rowCount === 0) return 'last lead'
    await pool().query('update session set revoked_at = now() where account_id = $1 and revoked_at is null', [
      id,
    ])
  }
  await pool().query('update account set disabled_at = case when $2 then null else now() end where id = $1', [
    id,
    open,
  ])
  return 'done'
}

// Checked when a login is unknown, so that an answer takes as long as for a known one.
let decoy: Promise<string> | null = null

export type SignIn =
  | { readonly ok: true; readonly token: string; readonly expires: Date }
  | { readonly ok: false; readonly why: 'wrong' | 'too many' }

export async function signIn(
  login: string,
  password: string,
  address: string,
  agent: string,
): Promise<SignIn> {
  const key = login.trim().toLowerCase()
  const { rows: tries } = await pool().query<{ login: number; address: number }>(
    `select count(*) filter (where login = $1)::int as login, count(*) filter (where address = $2)::int as address
     from sign_in_attempt where at > now() - interval '10 minutes' and not good and (login = $1 or address = $2)`,
    [key, address],
  )
  if (tries[0]!.login >= LOGIN_LIMIT || tries[0]!.address >= ADDRESS_LIMIT)
    return { ok: false, why: 'too many' }
  const { rows } = await pool().query<{ id: string; password_hash: string }>(
    'select id, password_hash from account where lower(login) = $1 and disabled_at is null',
    [key],
  )
  decoy ??= hash(randomBytes(12).toString('hex'))
  const good = await verify(rows[0]?.password_hash ?? (await decoy), password)
  const found = rows[0]
  await pool().query('insert into sign_in_attempt (login, address, good) values ($1, $2, $3)', [
    key,
    address,
    good && found !== undefined,
  ])
  if (!good || !found) return { ok: false, why: 'wrong' }
  await pool().query('delete from sign_in_attempt where login = $1 and not good', [key])
  return { ok: true, ...(await openSession(found.id, agent)) }
}

export async function openSession(
  accountId: string,
  agent: string,
): Promise<{ token: string; expires: Date }> {
  const token = randomBytes(32).toString('base64url')
  const expires = new Date(Date.now() + SESSION_HOURS * 3_600_000)
  await pool().query(
    'insert into session (token_hash, account_id, agent, expires_at) values ($1, $2, $3, $4)',
    [hashOf(token), accountId, agent.slice(0, 200), expires],
  )
  return { token, expires }
}

export async function accountOf(token: string | undefined): Promise<Account | null> {
  if (!token) return null
  const { rows } = await pool().query<Account>(
    `select a.id, a.login, a.name, a.role from session s join account a on a.id = s.account_id
     where s.token_hash = $1 and s.revoked_at is null and s.expires_at > now() and a.disabled_at is null`,
    [hashOf(token)],
  )
  return rows[0] ?? null
}

export async function sessionsOf(
  accountId: string,
  token: string | undefined,
): Promise<(SessionRow & { here: boolean })[]> {
  const { rows } = await pool().query<SessionRow>(
    `select token_hash as "tokenHash", agent, created_at::text as "createdAt", expires_at::text as "expiresAt"
     from session where account_id = $1 and revoked_at is null and expires_at > now() order by created_at desc limit 50`,
    [accountId],
  )
  const here = token ? hashOf(token) : ''
  return rows.map((row) => ({ ...row, here: row.tokenHash === here }))
}

export async function revokeSession(accountId: string, tokenHash: string): Promise<void> {
  await pool().query(
    'update session set revoked_at = now() where account_id = $1 and token_hash = $2 and revoked_at is null',
    [accountId, tokenHash],
  )
}

export async function signOut(token: string | undefined): Promise<void> {
  if (token)
    await pool().query('update session set revoked_at = now() where token_hash = $1', [hashOf(token)])
}
