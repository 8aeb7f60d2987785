// npm run demo: everything from nothing to a running demo shop; again: within seconds, data kept.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  accepting,
  ensureBuild,
  ensureDatabase,
  ensureModules,
  ensurePackages,
  freePort,
  layShop,
  postgresPackage,
  startCluster,
} from './cluster.mjs'

const checkout = dirname(dirname(fileURLToPath(import.meta.url)))
const flags = new Set(process.argv.slice(2))
const runFile = join(checkout, '.arch-needle', 'run.json')
const answers = (address) =>
  fetch(`${address}/icon.svg`).then(
    (response) => response.ok,
    () => false,
  )

const running = existsSync(runFile) && JSON.parse(readFileSync(runFile, 'utf8'))
if (running && (await answers(running.address))) {
  console.log(`Already running: ${running.address}\nStop it there with Ctrl-C first.`)
  process.exit(0)
}

if (!process.env.DATABASE_URL) ensurePackages([postgresPackage])
ensureModules(checkout)
const dev = flags.has('--dev')
if (!dev) ensureBuild(checkout, '.next')

mkdirSync(dirname(runFile), { recursive: true })
const cluster = process.env.DATABASE_URL ? null : await startCluster({ checkout })
let server = null
let stopping = false
async function stop(code) {
  if (stopping) return
  stopping = true
  if (server && server.exitCode === null && !server.signalCode) {
    const gone = new Promise((resolve) => server.on('exit', resolve))
    server.kill('SIGTERM')
    await gone
  }
  await cluster?.stop()
  rmSync(runFile, { force: true })
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => stop(0))

try {
  const urls = cluster
    ? await ensureDatabase(cluster, 'arch_needle')
    : { owner: process.env.DATABASE_URL, app: process.env.DATABASE_URL }
  layShop(
    checkout,
    urls.owner,
    ['--empty', '--reset'].filter((flag) => flags.has(flag)),
  )
  const port = process.env.PORT ?? String(await freePort())
  const host = process.env.HOST ?? '127.0.0.1'
  const env = {
    ...process.env,
    DATABASE_URL: urls.app,
    NEXT_TELEMETRY_DISABLED: '1',
    NODE_ENV: dev ? 'development' : 'production',
  }
  if (!flags.has('--empty')) env.DEMO_SIGN_IN = '1'
  server = spawn(
    process.execPath,
    ['node_modules/next/dist/bin/next', dev ? 'dev' : 'start', '-p', port, '-H', host],
    { cwd: checkout, stdio: ['ignore', 'ignore', 'inherit'], detached: true, env },
  )
  server.on('exit', (code) => stop(code ?? 1))
  await accepting(Number(port), server)
  const address = `http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`
  writeFileSync(
    runFile,
    JSON.stringify({ pid: process.pid, address, databaseUrl: urls.app, ownerUrl: urls.owner }),
    { mode: 0o600 },
  )
  console.log(`\nArch Needle is at ${address}`)
  if (!flags.has('--empty'))
    console.log('Sign in as  ines  (lead),  tolliver  or  maren;  the word is  quay-bench-demo')
  console.log('Ctrl-C stops it and its database; the data stays.\n')
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  await stop(1)
}
