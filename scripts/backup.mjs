// npm run backup -- FILE: the whole shop in one file. It may run beside a working server.
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { ensureDatabase, ensureModules, ensurePackages, postgresPackage, startCluster } from './cluster.mjs'

const checkout = dirname(dirname(fileURLToPath(import.meta.url)))
ensureModules(checkout)
ensurePackages([postgresPackage])
const { BackupFault, checkBackup, restoreBackup, writeBackup } = await import('./backup-file.mjs')

const verb = process.argv[2]
const usage = {
  write: 'npm run backup -- FILE            writes the whole shop into FILE',
  check: 'npm run backup:check -- FILE      reads FILE through, and changes nothing',
  restore:
    'npm run restore -- FILE [--over]  puts the shop of FILE in place; with --over another is put aside',
}
const fail = (text) => {
  console.error(text)
  process.exit(2)
}
let asked
try {
  asked = parseArgs({
    args: process.argv.slice(3),
    allowPositionals: true,
    options: { over: { type: 'boolean' } },
  })
} catch (error) {
  fail(`${error.message}\n\n${usage[verb]}`)
}
const [file, ...more] = asked.positionals
if (!file || more.length > 0) fail(usage[verb])
const path = resolve(process.env.INIT_CWD ?? '.', file)
if (verb === 'write' && existsSync(path))
  fail(`${path} is there already. Nothing was written; give it another name.`)
if (verb !== 'write' && !existsSync(path)) fail(`${path} is not there.`)

const runFile = join(checkout, '.arch-needle', 'run.json')
const running = existsSync(runFile) ? JSON.parse(readFileSync(runFile, 'utf8')) : null
const lives = (pid) => Number.isInteger(pid) && existsSync(`/proc/${pid}`)
// What it remembers of jobs would be another shop’s.
if (verb === 'restore' && running && (lives(running.pid) || lives(running.server)))
  fail(`It is running at ${running.address}. Nothing was changed. Stop it with Ctrl-C, then try again.`)
let shown = 0
const onBytes = (bytes) => {
  if (!process.stderr.isTTY || bytes - shown < 4e6) return
  shown = bytes
  process.stderr.write(`\r${Math.round(bytes / 1e6)} MB…`)
}
let cluster = null
process.once('SIGINT', () => {
  rmSync(`${path}.part`, { force: true })
  void Promise.resolve(cluster?.stop()).then(() => process.exit(130))
})
const database = async () => {
  const url = process.env.DATABASE_URL ?? running?.ownerUrl
  if (url) return url
  cluster = await startCluster({ checkout })
  return (await ensureDatabase(cluster, 'arch_needle')).owner
}
const says = ({ takenAt, bytes, tables }) =>
  `${tables.job ?? 0} jobs, ${tables.tape_entry ?? 0} lines, ${tables.file ?? 0} files, ${Math.round(bytes / 1e5) / 10} MB, as of ${takenAt}`
try {
  if (verb === 'write')
    console.log(`Written: ${path}\n${says(await writeBackup(await database(), path, { onBytes }))}`)
  else if (verb === 'check') console.log(`Whole: ${path}\n${says(await checkBackup(path, { onBytes }))}`)
  else {
    const { manifest, aside } = await restoreBackup(await database(), path, {
      over: asked.values.over,
      onBytes,
    })
    console.log(
      `Restored, counted and hashed: ${path}\n${says(manifest)}\nWhat was there before is the database ${aside}.`,
    )
  }
} catch (error) {
  console.error(error instanceof BackupFault ? error.message : error)
  process.exitCode = error instanceof BackupFault ? 2 : 1
} finally {
  await cluster?.stop()
}
