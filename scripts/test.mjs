// npm test: lint, types, unit, database and end-to-end from nothing, on its own ports, build folder and cluster.
import { spawn } from 'node:child_process'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  chromiumPackage,
  ensureBuild,
  ensureDatabase,
  ensureModules,
  ensurePackages,
  layShop,
  postgresPackage,
  startCluster,
} from './cluster.mjs'

const checkout = dirname(dirname(fileURLToPath(import.meta.url)))
const only = new Set(process.argv.slice(2).filter((arg) => !arg.startsWith('-')))
const wants = (part) => only.size === 0 || only.has(part)

ensurePackages([postgresPackage, chromiumPackage])
ensureModules(checkout)

const children = new Set()
let cluster = null
async function finish(code) {
  await Promise.all(
    [...children].map((child) => {
      if (child.exitCode !== null || child.signalCode) return null
      const gone = new Promise((resolve) => child.on('exit', resolve))
      child.kill('SIGTERM')
      return gone
    }),
  )
  await cluster?.stop()
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => finish(130))

const counted = { passed: 0, failed: 0 }
/** Runs one part and counts what its closing line says. Of one that runs beside another, all is told at its end. */
const run = (label, file, args, env = {}, beside = false) =>
  new Promise((resolve, reject) => {
    const began = performance.now()
    if (!beside) console.log(`\n── ${label}`)
    const child = spawn(process.execPath, [file, ...args], {
      cwd: checkout,
      stdio: ['ignore', 'pipe', beside ? 'pipe' : 'inherit'],
      env: { ...process.env, ...env, NEXT_TELEMETRY_DISABLED: '1', FORCE_COLOR: '0', NO_COLOR: '1' },
    })
    children.add(child)
    let text = ''
    const hear = (chunk) => {
      text += chunk
      if (!beside) process.stdout.write(chunk)
    }
    child.stdout.on('data', hear)
    child.stderr?.on('data', hear)
    child.on('close', (code) => {
      children.delete(child)
      if (beside) console.log(`\n── ${label}\n${text}`)
      const closing = text
        .split('\n')
        .filter((line) => /^\s*(Tests\s+)?(\d+ failed)?[ |]*\d+ passed|^\s*\d+ failed\s*$/.test(line))
      for (const line of closing) {
        counted.passed += Number(/(\d+) passed/.exec(line)?.[1] ?? 0)
        counted.failed += Number(/(\d+) failed/.exec(line)?.[1] ?? 0)
      }
      console.log(
        `── ${label}: ${code === 0 ? 'good' : `failed (${code})`}, ${((performance.now() - began) / 1000).toFixed(0)} s`,
      )
      if (code === 0) resolve()
      else reject(new Error(`${label} failed`))
    })
  })

try {
  if (wants('lint')) {
    const check = (label, file, ...args) => run(label, `node_modules/${file}`, args, {}, true)
    const checks = await Promise.allSettled([
      check('lint', 'eslint/bin/eslint.js', '.', '--max-warnings', '0'),
      check('types', 'typescript/bin/tsc', '--noEmit')
        .then(() => check('unused', 'knip/bin/knip.js'))
        .then(() => check('layout', 'prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.')),
    ])
    for (const { reason } of checks) if (reason) throw reason
  }
  cluster = await startCluster({ throwaway: true })
  if (wants('unit')) {
    const urls = await ensureDatabase(cluster, 'needle_unit')
    layShop(checkout, urls.owner, ['--empty'])
    await run('unit and database', 'node_modules/vitest/vitest.mjs', ['run'], {
      TEST_OWNER_URL: urls.owner,
      TEST_APP_URL: urls.app,
    })
  }
  if (wants('e2e')) {
    const urls = await ensureDatabase(cluster, 'needle_e2e')
    layShop(checkout, urls.owner, ['--into=needle_e2e'])
    const empty = await ensureDatabase(cluster, 'needle_empty')
    process.env.FIRST_LEAD_CODE = 'first-lead-of-the-tests'
    layShop(checkout, empty.owner, ['--empty'])
    await ensureBuild(checkout, '.next-test')
    await run(
      'end to end',
      'node_modules/@playwright/test/cli.js',
      ['test', ...process.argv.slice(2).filter((arg) => arg.startsWith('-'))],
      {
        E2E_OWNER_URL: urls.owner,
        E2E_APP_URL: urls.app,
        E2E_EMPTY_URL: empty.app,
        NEXT_DIST_DIR: '.next-test',
      },
    )
  }
  console.log(`\n${counted.passed} passed, ${counted.failed} failed`)
  await finish(0)
} catch (error) {
  console.error(`\n${error.message}`)
  console.log(`${counted.passed} passed, ${Math.max(1, counted.failed)} failed`)
  await finish(1)
}
