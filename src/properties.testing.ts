import fc from 'fast-check'

/**
 * Properties are tried on the same cases in every run, so that what fails once fails again; `PROPERTY_SEED=7 npx vitest run`
 * tries others. `PROPERTY_MS` is how long each may take at most, where they are run once for every mutant.
 */
const atMost = Number(process.env.PROPERTY_MS ?? 0)
fc.configureGlobal({
  seed: Number(process.env.PROPERTY_SEED ?? 20261),
  ...(atMost > 0 ? { interruptAfterTimeLimit: atMost } : {}),
})
