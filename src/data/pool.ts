import 'server-only'
import pg from 'pg'

const held = globalThis as { needlePool?: pg.Pool }

/** One pool a process. A lost server is met by the next query, not by a crash. */
export function pool(): pg.Pool {
  if (!held.needlePool) {
    const connectionString = process.env.DATABASE_URL
    if (!connectionString) throw new Error('DATABASE_URL is not set; npm run demo sets it')
    held.needlePool = new pg.Pool({ connectionString, max: 12, connectionTimeoutMillis: 4000 })
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
    broken = await client.query('rollback').then(
      () => false,
      () => true,
    )
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
