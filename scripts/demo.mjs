// npm run demo: everything from nothing to a running demo shop; again: within seconds, data kept.
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, realpathSync, rmSync, writeFileSync } from 'node:fs'
import { setTimeout as sleep } from 'node:timers/promises'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  answersOn,
  ensureBuild,
  ensureDatabase,
  ensureModules,
  ensurePackages,
  layShop,
  postgresPackage,
  startCluster,
} from './cluster.mjs'

const checkout = dirname(dirname(fileURLToPath(import.meta.url)))
const flags = new Set(process.argv.slice(2))
const runFile = join(checkout, '.arch-needle', 'run.json')
const healthy = (address) =>
  fetch(`${address}/api/health`, { signal: AbortSignal.timeout(6000) }).then(
    (response) => response.ok,
    () => false,
  )
/** Whether a process is one of this checkout's start commands or servers: its number may be another's by now. */
const isOurs = (pid, script) => {
  const command = `/proc/${pid}/cmdline`
  const cwd = `/proc/${pid}/cwd`
  return (
    Number.isInteger(pid) &&
    existsSync(command) &&
    readFileSync(command, 'utf8').includes(script) &&
    realpathSync(cwd) === realpathSync(checkout)
  )
}

const running = existsSync(runFile) && JSON.parse(readFileSync(runFile, 'utf8'))
if (running) {
  if (isOurs(running.pid, 'demo.mjs')) {
    if (await healthy(running.address)) {
      console.log(`Already running: ${running.address}\nStop it there with Ctrl-C first.`)
      process.exit(0)
    }
    console.log('It runs, but does not answer: it is ended and started again.')
    process.kill(running.pid, 'SIGTERM')
    for (let i = 0; i < 100 && isOurs(running.pid, 'demo.mjs'); i++) await sleep(100)
    if (isOurs(running.pid, 'demo.mjs')) process.kill(running.pid, 'SIGKILL')
  }
  // What a start command that was killed has left behind.
  if (isOurs(running.server, 'serve.mjs')) process.kill(running.server, 'SIGKILL')
  rmSync(runFile, { force: true })
}

if (!process.env.DATABASE_URL) ensurePackages([postgresPackage])
ensureModules(checkout)
const dev = flags.has('--dev')
if (!dev) await ensureBuild(checkout, '.next')

mkdirSync(dirname(runFile), { recursive: true })
let server = null
let stopping = false
/** The database died under us: the same data again, on the same port, so that the application finds it. */
async function raise() {
  for (let tries = 0; !stopping && tries < 10; tries++) {
    console.error('The database has stopped. It is started again.')
    try {
      return await cluster.revive()
    } catch {
      await sleep(1000)
    }
  }
  if (!stopping) await stop(1)
}
const cluster = process.env.DATABASE_URL
  ? null
  : await startCluster({ checkout, onDeath: () => void (stopping || raise()) })
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
  // A database that was handed in is not ours: the demo shop is laid into it only when it is told by its name.
  layShop(checkout, urls.owner, [
    ...['--empty', '--reset'].filter((flag) => flags.has(flag)),
    ...(cluster ? ['--into=arch_needle'] : [...flags].filter((flag) => flag.startsWith('--into='))),
  ])
  const host = process.env.HOST ?? '127.0.0.1'
  const env = {
    ...process.env,
    DATABASE_URL: urls.app,
    NEXT_TELEMETRY_DISABLED: '1',
    NODE_ENV: dev ? 'development' : 'production',
    PORT: process.env.PORT ?? '0',
    HOST: host,
  }
  if (!flags.has('--empty')) env.DEMO_SIGN_IN = '1'
  server = spawn(process.execPath, ['scripts/serve.mjs'], {
    cwd: checkout,
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    detached: true,
    env,
  })
  server.on('exit', (code) => stop(code ?? 1))
  const port = await answersOn(server)
  const address = `http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`
  writeFileSync(
    runFile,
    JSON.stringify({
      pid: process.pid,
      server: server.pid,
      address,
      databaseUrl: urls.app,
      ownerUrl: urls.owner,
    }),
    { mode: 0o600 },
  )
  console.log(`\nArch Needle is at ${address}`)
  if (!flags.has('--empty'))
    console.log('Sign in as  ines  (lead),  tolliver  or  maren;  the password is  quay-bench-demo')
  console.log('Ctrl-C stops it and its database; the data stays.\n')
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  await stop(1)
}
