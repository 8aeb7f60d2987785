// npm run rebuild: every job's state computed again from its tape; says which differed.
import { execFileSync } from 'node:child_process'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensureModules, withDatabase } from './cluster.mjs'

const checkout = dirname(dirname(fileURLToPath(import.meta.url)))
ensureModules(checkout)
await withDatabase(checkout, (url) =>
  execFileSync(
    process.execPath,
    ['--conditions=react-server', '--import', 'tsx', 'scripts/rebuild-jobs.ts'],
    { cwd: checkout, stdio: 'inherit', env: { ...process.env, DATABASE_URL: url } },
  ),
)
