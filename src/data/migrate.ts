import 'server-only'
import { runner } from 'node-pg-migrate'
import { fileURLToPath } from 'node:url'

/** Brings a database up to the newest migration. Run by the start command and the tests, never by a request. */
export async function migrate(databaseUrl: string): Promise<void> {
  await runner({
    databaseUrl,
    dir: fileURLToPath(new URL('./migrations', import.meta.url)),
    direction: 'up',
    migrationsTable: 'migration',
    log: () => undefined,
  })
}
