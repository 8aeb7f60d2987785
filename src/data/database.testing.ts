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

const owner = process.env.TEST_OWNER_URL

/** Tests on a real database; `npm test` gives one, without it they are skipped. */
export function describeDatabase(name: string, tests: (owner: () => pg.Client) => void): void {
  describe.skipIf(!owner)(name, () => {
    let client: pg.Client
    beforeAll(async () => {
      process.env.DATABASE_URL = process.env.TEST_APP_URL
      client = new pg.Client({ connectionString: owner })
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
