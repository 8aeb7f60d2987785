// npm run mutate [part …]: mutation testing, part by part, of what may hurt someone or mislead. Each part has to kill 85 % of
// its mutants with its own tests. On demand: it takes hours.
import { spawnSync } from 'node:child_process'

const job = 'src/core/job/'
const damage = 'src/core/socket/damage/'
const contact = 'src/core/socket/contact/'
const reason = 'src/core/triage/reason/'
/** @type {Record<string, { files: string[], tests: string[] }>} */
const parts = {
  gate: {
    files: [`${job}gate.ts`, `${job}gate-rails.ts`, `${job}gate-shorts.ts`, `${job}power-gate.ts`],
    tests: [`${job}power-*.test.ts`, `${job}gate-reasons.test.ts`],
  },
  'gate evidence': { files: [`${job}power-evidence.ts`], tests: [`${job}power-*.test.ts`] },
  shorts: {
    files: [`${damage}short.ts`, `${damage}closing-shorts.ts`],
    tests: [`${damage}*.test.ts`, `${job}power-*.test.ts`],
  },
  contact: {
    files: [
      `${contact}bend.ts`,
      `${contact}contact-force.ts`,
      `${contact}function-law.ts`,
      `${damage}each-contact.ts`,
    ],
    tests: [`${contact}*.test.ts`, `${damage}*.test.ts`],
  },
  odds: { files: [`${reason}odds.ts`, `${reason}likelihood.ts`], tests: [`${reason}odds*.test.ts`] },
  'next test': { files: [`${reason}next-test.ts`], tests: [`${reason}next-test.test.ts`] },
  proof: { files: ['src/core/proof/plan.ts'], tests: ['src/core/proof/*.test.ts'] },
}

const asked = process.argv.slice(2)
const unknown = asked.filter((name) => !parts[name])
if (unknown.length > 0) {
  console.error(`no part “${unknown.join('”, “')}”; there are: ${Object.keys(parts).join(', ')}`)
  process.exit(2)
}
let failed = false
for (const name of asked.length > 0 ? asked : Object.keys(parts)) {
  const { files, tests } = parts[name]
  console.log(`\n── ${name}`)
  const { status } = spawnSync('npx', ['stryker', 'run', '-m', files.join(',')], {
    env: { ...process.env, MUTATE_TESTS: tests.join(' '), PROPERTY_MS: '300' },
    stdio: 'inherit',
  })
  failed ||= status !== 0
}
process.exit(failed ? 1 : 0)
