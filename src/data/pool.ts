import 'server-only'
import pg from 'pg'

const held = globalThis as { needlePool?: pg.Pool }

const ANSWERS_WITHIN_MS = 4500
const LONGEST_STATEMENT_MS = 60_000

/** Whether a query got no answer in time: its connection is of no more use, not even for a rollback. */
const unanswered = (error: unknown) => error instanceof Error && /timeout/i.test(error.message)

/** One pool a process. A lost server is met by the next query, not by a crash. */
export function pool(): pg.Pool {
  if (!held.needlePool) {
    const connectionString = process.env.DATABASE_URL
    if (!connectionString) throw new Error('DATABASE_URL is not set; npm run demo sets it')
    held.needlePool = new pg.Pool({
      connectionString,
      max: 12,
      connectionTimeoutMillis: 4000,
      // A database that stands still is told within five seconds; what it was asked is ended there too.
      query_timeout: ANSWERS_WITHIN_MS,
      statement_timeout: LONGEST_STATEMENT_MS,
      lock_timeout: ANSWERS_WITHIN_MS,
      idle_in_transaction_session_timeout: 30_000,
      keepAlive: true,
    })
    held.needlePool.on('error', () => undefined)
  }
  return held.needlePool
}

export type Queryable = pg.Pool | pg.PoolClient

const survive = () => undefined

/** All or nothing: commits what `work` returns, rolls back what it throws. */
export async function transaction<T>(work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  const client = await pool().connect()
  // A connection lost between two queries is told as an event; unheard, it would end the process.
  client.on('error', survive)
  let broken = false
  try {
    await client.query('begin')
    const result = await work(client)
    await client.query('commit')
    return result
  } catch (error) {
    broken =
      unanswered(error) ||
      (await client.query('rollback').then(
        () => false,
        () => true,
      ))
    throw error
  } finally {
    client.off('error', survive)
    client.release(broken)
  }
}

export async function closePool(): Promise<void> {
  await held.needlePool?.end()
  held.needlePool = undefined
}
