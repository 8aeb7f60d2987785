import 'server-only'
import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { cutText } from '@/core/tables/plain-text'
import { hashPassword, isPassword, TooBusy } from './passwords'
import { pool, transaction } from './pool'
import type { Queryable } from './pool'
import { mayTry, wentWell } from './sign-in-limits'

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
/** Sessions are forgotten this long after they ran out. */
const KEPT_DAYS = 30

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
    [id, login, name, role, await hashPassword(password)],
  )
  return { id, login, name, role }
}

/** A code that makes the first lead, in place of the last one; only its hash is kept. Null once anybody has an account. */
export async function newFirstLeadCode(chosen?: string): Promise<string | null> {
  if (await anyAccount()) return null
  const code = chosen ?? randomBytes(9).toString('base64url')
  await transaction(async (db) => {
    await db.query('delete from first_lead_code')
    await db.query('insert into first_lead_code (code_hash) values ($1)', [hashOf(code)])
  })
  return code
}

/**
 * The first account of an empty shop, by the code that the start command printed. The code goes with it in one
 * transaction, so that of two who have it only one becomes the lead.
 */
export async function createFirstLead(
  login: string,
  name: string,
  password: string,
  code: string,
): Promise<Account | 'wrong code' | 'has a lead'> {
  const id = randomUUID()
  const hashed = await hashPassword(password)
  return transaction(async (db) => {
    const { rowCount: taken } = await db.query('select 1 from account limit 1')
    if (taken) return 'has a lead'
    const { rowCount } = await db.query('delete from first_lead_code where code_hash = $1', [
      hashOf(code.trim()),
    ])
    if (!rowCount) return 'wrong code'
    await db.query(
      "insert into account (id, login, name, role, password_hash) values ($1, $2, $3, 'lead', $4)",
      [id, login, name, hashed],
    )
    return { id, login, name, role: 'lead' }
  })
}

export async function listAccounts(): Promise<(Account & { disabledAt: string | null; sessions: number })[]> {
  const { rows } = await pool().query(
    `select a.id, a.login, a.name, a.role, a.disabled_at::text as "disabledAt",
            (select count(*)::int from session s where s.account_id = a.id and s.revoked_at is null and s.expires_at > now()) as sessions
     from account a order by a.role, a.name`,
  )
  return rows
}

/**
 * Closes or opens an account, as an open lead; closing ends its sessions. The last open lead cannot be closed: the open
 * leads are locked first, so that two who close each other do it one after the other, and the second is a lead no more.
 */
export async function setAccountOpen(
  id: string,
  open: boolean,
  by: string,
): Promise<'done' | 'last lead' | 'not a lead'> {
  return transaction(async (db) => {
    const { rows: leads } = await db.query<{ id: string }>(
      "select id from account where role = 'lead' and disabled_at is null order by id for update",
    )
    if (!leads.some((lead) => lead.id === by)) return 'not a lead'
    if (!open) {
      if (leads.length === 1 && leads[0]!.id === id) return 'last lead'
      await endSessions(id, db)
    }
    await db.query('update account set disabled_at = case when $2 then null else now() end where id = $1', [
      id,
      open,
    ])
    return 'done'
  })
}

async function endSessions(accountId: string, db: Queryable, but = ''): Promise<void> {
  await db.query(
    'update session set revoked_at = now() where account_id = $1 and revoked_at is null and token_hash <> $2',
    [accountId, but],
  )
}

/** Another password for myself; my sessions elsewhere are ended. */
export async function changePassword(
  account: Account,
  before: string,
  password: string,
  token: string | undefined,
): Promise<'done' | 'wrong'> {
  const { rows } = await pool().query<{ password_hash: string }>(
    'select password_hash from account where id = $1',
    [account.id],
  )
  if (!rows[0] || !(await isPassword(rows[0].password_hash, before))) return 'wrong'
  await setPassword(account.id, password, token ? hashOf(token) : '')
  return 'done'
}

/** A lead sets somebody's password anew; every session of that account is ended. */
export async function resetPassword(accountId: string, password: string): Promise<void> {
  await setPassword(accountId, password, '')
}

async function setPassword(accountId: string, password: string, keep: string): Promise<void> {
  const hashed = await hashPassword(password)
  await transaction(async (db) => {
    await db.query('update account set password_hash = $2 where id = $1', [accountId, hashed])
    await endSessions(accountId, db, keep)
  })
}

// Checked when a login is unknown, so that an answer takes as long as for a known one.
let decoy: Promise<string> | null = null

export type SignIn =
  | { readonly ok: true; readonly token: string; readonly expires: Date }
  | { readonly ok: false; readonly why: 'wrong' | 'too many' | 'busy' }

export async function signIn(
  login: string,
  password: string,
  address: string,
  agent: string,
): Promise<SignIn> {
  const key = login.trim().toLowerCase()
  if (!/^[a-z0-9._-]{1,60}$/.test(key)) return { ok: false, why: 'wrong' }
  const { rows } = await pool().query<{ id: string; password_hash: string; known: boolean }>(
    `select id, password_hash,
            exists (select 1 from session s where s.account_id = a.id and s.address_hash = $2) as known
     from account a where lower(login) = $1 and disabled_at is null`,
    [key, hashOf(address)],
  )
  const found = rows[0]
  if (!(await mayTry(key, address, found?.known ?? false))) return { ok: false, why: 'too many' }
  try {
    decoy ??= hashPassword(randomBytes(12).toString('hex'))
    const good = await isPassword(found?.password_hash ?? (await decoy), password)
    if (!good || !found) return { ok: false, why: 'wrong' }
  } catch (error) {
    if (error instanceof TooBusy) return { ok: false, why: 'busy' }
    throw error
  }
  await wentWell(key, address)
  return { ok: true, ...(await openSession(found.id, agent, address)) }
}

export async function openSession(
  accountId: string,
  agent: string,
  address = '',
): Promise<{ token: string; expires: Date }> {
  const token = randomBytes(32).toString('base64url')
  const expires = new Date(Date.now() + SESSION_HOURS * 3_600_000)
  await pool().query(
    'insert into session (token_hash, account_id, agent, expires_at, address_hash) values ($1, $2, $3, $4, $5)',
    [hashOf(token), accountId, cutText(agent.replaceAll('\0', ''), 200), expires, hashOf(address)],
  )
  await pool().query(`delete from session where expires_at < now() - interval '${KEPT_DAYS} days'`)
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
