import fc from 'fast-check'

/**
 * Properties are tried on the same cases in every run, so that what fails once fails again; `PROPERTY_SEED=7 npx vitest run`
 * tries others.
 */
fc.configureGlobal({ seed: Number(process.env.PROPERTY_SEED ?? 20261) })
