// What a line costs on a short tape and on a long one: run by append.ts on a database of its own.
import { randomUUID } from 'node:crypto'
import { performance } from 'node:perf_hooks'
import { createAccount } from '@/data/accounts'
import type { Account } from '@/data/accounts'
import { createJob } from '@/data/jobs'
import { closePool, transaction } from '@/data/pool'
import { appendEntry, layTape } from '@/data/tape'
import { tape } from '@/core/job/tape.testing'
import { rails } from '@/core/board/rail'

const SHORT = 50
const LONG = 5000
const ROUNDS = 300

/** The lines of a working day over and over: readings, notes, the clock, power-ups. */
function someTape(lines: number) {
  const t = tape().put('ticket', { set: { board: 'TW-K61', complaint: 'dark' } })
  for (let i = 1; i < lines; i++) {
    const rail = rails[i % rails.length]!
    if (i % 3 === 0) t.put('rail', { rail, ohms: 200 + (i % 90), cpu: 'out' })
    else if (i % 3 === 1) t.put('note', { text: `line ${i}: flux left of the socket` })
    else t.put('clock', { run: i % 2 ? 'triage' : null })
  }
  return t.entries.map((e) => ({ ...e, id: randomUUID() }))
}

async function jobOf(by: Account, lines: number): Promise<{ id: string; last: number }> {
  const id = randomUUID()
  await createJob(id, by.id)
  await transaction((db) => layTape(id, someTape(lines), by.id, db))
  return { id, last: lines }
}

const by = await createAccount('bench', 'Bench', 'technician', 'a long enough word')
const jobs = [await jobOf(by, SHORT), await jobOf(by, LONG)]
const took: number[][] = [[], []]
for (let round = 0; round < ROUNDS; round++)
  for (const [i, job] of jobs.entries()) {
    const began = performance.now()
    const done = await appendEntry(job.id, by, {
      id: randomUUID(),
      kind: 'rail',
      body: { rail: rails[round % rails.length]!, ohms: 250, cpu: 'out' },
      strikes: null,
      at: new Date().toISOString(),
      basis: job.last,
    })
    took[i]!.push(performance.now() - began)
    if (done.result !== 'saved') throw new Error(JSON.stringify(done))
    job.last++
  }
process.stdout.write(JSON.stringify({ short: took[0], long: took[1] }))
await closePool()
