import 'server-only'
import { createHash, randomBytes } from 'node:crypto'
import type { Account } from './accounts'
import { pool } from './pool'
import type { Queryable } from './pool'

/** A link that opens one job to its owner, as the shop sees it: the link itself is shown once, when it is made. */
export interface OwnerLink {
  readonly id: string
  readonly madeAt: string
  readonly expiresAt: string
}

/** 256 bits, which nobody guesses. */
const BYTES = 32
const hashOf = (token: string) => createHash('sha256').update(token).digest()
const live = 'revoked_at is null and expires_at > now()'

/** Makes a link to a job, none to one of practice or whose owner was erased; sent again with the same id it is another link of the same name, and the first one no more. */
export async function makeOwnerLink(
  id: string,
  jobId: string,
  by: Account,
  days: number,
): Promise<string | null> {
  const token = randomBytes(BYTES).toString('base64url')
  const { rowCount } = await pool().query(
    `insert into owner_link (id, job_id, token_sha256, made_by, expires_at)
     select $1, j.id, $3, $4, now() + make_interval(days => $5)
     from job j left join customer c on c.id = j.customer_id
     where j.id = $2 and not j.practice and c.erased_at is null
     on conflict (id) do update set token_sha256 = $3 where owner_link.job_id = $2 and owner_link.made_by = $4
       and owner_link.revoked_at is null`,
    [id, jobId, hashOf(token), by.id, days],
  )
  return rowCount ? token : null
}

export async function ownerLinksOf(jobId: string): Promise<OwnerLink[]> {
  const { rows } = await pool().query<{ id: string; madeAt: Date; expiresAt: Date }>(
    `select id, made_at as "madeAt", expires_at as "expiresAt" from owner_link where job_id = $1 and ${live}
     order by made_at desc`,
    [jobId],
  )
  return rows.map((r) => ({ id: r.id, madeAt: r.madeAt.toISOString(), expiresAt: r.expiresAt.toISOString() }))
}

export async function revokeOwnerLink(jobId: string, id: string): Promise<void> {
  await pool().query(
    'update owner_link set revoked_at = now() where id = $1 and job_id = $2 and revoked_at is null',
    [id, jobId],
  )
}

/** All links of a job: its owner’s data was erased. */
export async function revokeOwnerLinks(jobId: string, db: Queryable = pool()): Promise<void> {
  await db.query('update owner_link set revoked_at = now() where job_id = $1 and revoked_at is null', [jobId])
}

/** The job a link opens, and who made the link; null for one that was never made, is revoked or has run out. */
export async function openedBy(
  token: string,
): Promise<{ readonly jobId: string; readonly by: Account } | null> {
  if (!/^[\w-]{43}$/.test(token)) return null
  const { rows } = await pool().query<{ jobId: string } & Account>(
    `select l.job_id as "jobId", a.id, a.login, a.name, a.role
     from owner_link l join account a on a.id = l.made_by where l.token_sha256 = $1 and ${live}`,
    [hashOf(token)],
  )
  const [row] = rows
  if (!row) return null
  const { jobId, ...by } = row
  return { jobId, by }
}
