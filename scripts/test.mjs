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

let child = null
let cluster = null
async function finish(code) {
  if (child && child.exitCode === null && !child.signalCode) {
    const gone = new Promise((resolve) => child.on('exit', resolve))
    child.kill('SIGTERM')
    await gone
  }
  await cluster?.stop()
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => finish(130))

const counted = { passed: 0, failed: 0 }
/** Runs one part in the foreground and counts what its closing line says. */
const run = (label, file, args, env = {}) =>
  new Promise((resolve, reject) => {
    const began = performance.now()
    console.log(`\n── ${label}`)
    child = spawn(process.execPath, [file, ...args], {
      cwd: checkout,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, ...env, NEXT_TELEMETRY_DISABLED: '1', FORCE_COLOR: '0', NO_COLOR: '1' },
    })
    let text = ''
    child.stdout.on('data', (chunk) => {
      text += chunk
      process.stdout.write(chunk)
    })
    child.on('exit', (code) => {
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
    await run('layout', 'node_modules/prettier/bin/prettier.cjs', ['--check', '--log-level', 'warn', '.'])
    await run('lint', 'node_modules/eslint/bin/eslint.js', ['.', '--max-warnings', '0'])
    await run('types', 'node_modules/typescript/bin/tsc', ['--noEmit'])
    await run('unused', 'node_modules/knip/bin/knip.js', [])
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
    ensureBuild(checkout, '.next-test')
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
