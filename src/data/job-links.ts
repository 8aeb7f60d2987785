import 'server-only'
import { createHash, randomBytes } from 'node:crypto'
import type { Account } from './accounts'
import { pool } from './pool'
import type { Queryable } from './pool'

/** A link that opens one job to its owner, or one question about it for a second opinion; the link itself is shown once, when it is made. */
export interface JobLink {
  readonly id: string
  readonly madeAt: string
  readonly expiresAt: string
}

/** 256 bits, which nobody guesses. */
const BYTES = 32
const hashOf = (token: string) => createHash('sha256').update(token).digest()
const live = 'revoked_at is null and expires_at > now()'

/**
 * Makes a link to a job, none to one of practice or whose owner was erased; sent again with the same id it is another link of
 * the same name, and the first one no more.
 * @param asked the line of the question it opens; null for the owner
 */
export async function makeLink(
  id: string,
  jobId: string,
  by: Account,
  days: number,
  asked: number | null,
): Promise<string | null> {
  const token = randomBytes(BYTES).toString('base64url')
  const { rowCount } = await pool().query(
    `insert into job_link (id, job_id, token_sha256, made_by, expires_at, asked)
     select $1, j.id, $3, $4, now() + make_interval(days => $5), $6
     from job j left join customer c on c.id = j.customer_id
     where j.id = $2 and not j.practice and c.erased_at is null
     on conflict (id) do update set token_sha256 = $3 where job_link.job_id = $2 and job_link.made_by = $4
       and job_link.revoked_at is null and job_link.asked is not distinct from $6`,
    [id, jobId, hashOf(token), by.id, days, asked],
  )
  return rowCount ? token : null
}

/** The links of a job that open: those of a question, or those of its owner. */
export async function linksOf(jobId: string, asked: number | null): Promise<JobLink[]> {
  const { rows } = await pool().query<{ id: string; madeAt: Date; expiresAt: Date }>(
    `select id, made_at as "madeAt", expires_at as "expiresAt" from job_link
     where job_id = $1 and asked is not distinct from $2 and ${live} order by made_at desc`,
    [jobId, asked],
  )
  return rows.map((r) => ({ id: r.id, madeAt: r.madeAt.toISOString(), expiresAt: r.expiresAt.toISOString() }))
}

export async function revokeLink(jobId: string, id: string): Promise<void> {
  await pool().query(
    'update job_link set revoked_at = now() where id = $1 and job_id = $2 and revoked_at is null',
    [id, jobId],
  )
}

/** All links of a job: its owner’s data was erased. */
export async function revokeLinks(jobId: string, db: Queryable = pool()): Promise<void> {
  await db.query('update job_link set revoked_at = now() where job_id = $1 and revoked_at is null', [jobId])
}

/** What a link opens, and who made it. */
interface Opened {
  readonly jobId: string
  readonly by: Account
}

async function opened(token: string): Promise<(Opened & { readonly asked: number | null }) | null> {
  if (!/^[\w-]{43}$/.test(token)) return null
  const { rows } = await pool().query<{ jobId: string; asked: number | null } & Account>(
    `select l.job_id as "jobId", l.asked, a.id, a.login, a.name, a.role
     from job_link l join account a on a.id = l.made_by where l.token_sha256 = $1 and ${live}`,
    [hashOf(token)],
  )
  const [row] = rows
  if (!row) return null
  const { jobId, asked, ...by } = row
  return { jobId, asked, by }
}

/** The job an owner’s link opens; null for one that was never made, is revoked or has run out, and for one of a question. */
export async function openedForOwner(token: string): Promise<Opened | null> {
  const link = await opened(token)
  return link?.asked === null ? { jobId: link.jobId, by: link.by } : null
}

/** The question a link opens; null for every other link. */
export async function openedForOpinion(token: string): Promise<(Opened & { readonly asked: number }) | null> {
  const link = await opened(token)
  return link && link.asked !== null ? { ...link, asked: link.asked } : null
}
