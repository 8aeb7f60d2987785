import type { Bodies, Kind } from '@/core/slices'
import { jobState } from '@/core/job/job-state'
import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { afterAll, beforeAll, describe } from 'vitest'
import { createAccount } from './accounts'
import type { Account } from './accounts'
import { createJob, jobByTag } from './jobs'
import type { Job } from './jobs'
import { closePool } from './pool'
import { forgetLimiters } from './sign-in-limits'
import { readTape } from './read-tape'
import { appendEntry } from './tape'
import type { Appended, NewEntry } from './tape'

const { TEST_OWNER_URL: laid = '', TEST_APP_URL: laidForApp = '' } = process.env

/** The same server, another database. */
function urlOf(url: string, database: string): string {
  const there = new URL(url)
  there.pathname = database
  return there.href
}

/** A database to this test file alone, copied from the one that was laid: files run side by side. */
async function copied(): Promise<string> {
  const name = `own_${randomUUID().replaceAll('-', '')}`
  const client = new pg.Client({ connectionString: urlOf(laid, 'postgres') })
  await client.connect()
  await client.query(`create database ${name} template ${new URL(laid).pathname.slice(1)}`)
  await client.end()
  return name
}
let own: Promise<string> | null = null

/** Tests on a real database; `npm test` gives one, without it they are skipped. */
export function describeDatabase(name: string, tests: (owner: () => pg.Client) => void): void {
  describe.skipIf(!laid)(name, () => {
    let client: pg.Client
    beforeAll(async () => {
      const name = await (own ??= copied())
      process.env.DATABASE_URL = urlOf(laidForApp, name)
      client = new pg.Client({ connectionString: urlOf(laid, name) })
      await client.connect()
    })
    afterAll(async () => {
      await client.end()
      await closePool()
      forgetLimiters()
    })
    tests(() => client)
  })
}

export const somebody = (name: string): Promise<Account> => {
  const own = randomUUID().slice(0, 8)
  return createAccount(`${name.toLowerCase()}-${own}`, `${name} ${own}`, 'technician', 'a long enough word')
}

export async function someJob(by: Account): Promise<Job> {
  const tag = await createJob(randomUUID(), by.id)
  return (await jobByTag(tag))!
}

export const line = <K extends Kind>(
  kind: K,
  body: Bodies[K],
  basis = 0,
  strikes: number | null = null,
): NewEntry => ({
  id: randomUUID(),
  kind,
  body,
  strikes,
  at: new Date().toISOString(),
  basis,
})

/** Appends a line and insists that it was saved. */
export async function lay<K extends Kind>(
  job: Job,
  by: Account,
  kind: K,
  body: Bodies[K],
): Promise<Appended> {
  const last = (await readTape(job.id)).at(-1)?.seq ?? 0
  const done = await appendEntry(job.id, by, line(kind, body, last))
  if (done.result !== 'saved') throw new Error(`not saved: ${JSON.stringify(done)}`)
  return done
}

export const stateOf = async (job: Job) =>
  JSON.parse(JSON.stringify(jobState(await readTape(job.id)))) as unknown
