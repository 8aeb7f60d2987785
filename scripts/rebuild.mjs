// npm run rebuild: every job's state computed again from its tape; says which differed.
import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensureDatabase, ensureModules, ensurePackages, postgresPackage, startCluster } from './cluster.mjs'

const checkout = dirname(dirname(fileURLToPath(import.meta.url)))
const runFile = join(checkout, '.arch-needle', 'run.json')
ensureModules(checkout)
const running = existsSync(runFile) ? JSON.parse(readFileSync(runFile, 'utf8')) : null
let url = process.env.DATABASE_URL ?? running?.ownerUrl
let cluster = null
if (!url) {
  ensurePackages([postgresPackage])
  cluster = await startCluster({ checkout })
  url = (await ensureDatabase(cluster, 'arch_needle')).owner
}
try {
  execFileSync(
    process.execPath,
    ['--conditions=react-server', '--import', 'tsx', 'scripts/rebuild-jobs.ts'],
    { cwd: checkout, stdio: 'inherit', env: { ...process.env, DATABASE_URL: url } },
  )
} finally {
  await cluster?.stop()
}
