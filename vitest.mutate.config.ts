import everyday from './vitest.config'

/** What mutants have to get past: the tests that `scripts/mutate.mjs` names for their part. */
delete everyday.test!.projects
everyday.test!.include = (process.env.MUTATE_TESTS ?? 'src/core/**/*.test.ts').split(' ')
export default everyday
