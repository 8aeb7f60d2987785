// npm run backup -- FILE: the whole shop in one file. It may run beside a working server.
import { existsSync, rmSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { ensureModules, ensurePackages, postgresPackage, runningNow, withDatabase } from './cluster.mjs'

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

const running = runningNow(checkout)
// What it remembers of jobs would be another shop’s.
if (verb === 'restore' && running)
  fail(`It is running at ${running.address}. Nothing was changed. Stop it with Ctrl-C, then try again.`)
let shown = 0
const onBytes = (bytes) => {
  if (!process.stderr.isTTY || bytes - shown < 4e6) return
  shown = bytes
  process.stderr.write(`\r${Math.round(bytes / 1e6)} MB…`)
}
process.once('SIGINT', () => rmSync(`${path}.part`, { force: true }))
const says = ({ takenAt, bytes, tables }) =>
  `${tables.job ?? 0} jobs, ${tables.tape_entry ?? 0} lines, ${tables.file ?? 0} files, ${Math.round(bytes / 1e5) / 10} MB, as of ${takenAt}`
const done = {
  write: async (url) => `Written: ${path}\n${says(await writeBackup(url, path, { onBytes }))}`,
  check: async () => `Whole: ${path}\n${says(await checkBackup(path, { onBytes }))}`,
  restore: async (url) => {
    const { manifest, aside } = await restoreBackup(url, path, { over: asked.values.over, onBytes })
    return `Restored, counted and hashed: ${path}\n${says(manifest)}\nWhat was there before is the database ${aside}.`
  },
}
try {
  console.log(verb === 'check' ? await done.check() : await withDatabase(checkout, done[verb]))
} catch (error) {
  console.error(error instanceof BackupFault ? error.message : error)
  process.exitCode = error instanceof BackupFault ? 2 : 1
}
