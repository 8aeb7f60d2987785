/** Mutation testing of what may hurt someone or mislead: `scripts/mutate.mjs` says of what, and by which tests. */
export default {
  testRunner: 'vitest',
  plugins: ['@stryker-mutator/vitest-runner'],
  vitest: { configFile: 'vitest.mutate.config.ts' },
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 60_000,
  reporters: ['clear-text', 'progress', 'html'],
  thresholds: { high: 90, low: 85, break: 85 },
  tempDirName: '.stryker-tmp',
  htmlReporter: { fileName: '.stryker-tmp/report.html' },
}
