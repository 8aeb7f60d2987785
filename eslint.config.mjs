import next from 'eslint-config-next'
import tseslint from 'typescript-eslint'

/** What a room may not import: app → stations, shop → frame, panels, job → (ui, workers, server, data) → core. */
const closed = (patterns) => ({
  'no-restricted-imports': ['error', { patterns: patterns.map((group) => ({ group: [group] })) }],
})
const rooms = (...names) => names.flatMap((name) => [`@/${name}`, `@/${name}/*`])
const impure = [
  'react',
  'react-*',
  'next',
  'next/*',
  'pg',
  'konva',
  'node:*',
  'fs',
  'path',
  'papaparse',
  'joi',
  'sharp',
  'fflate',
]

const surfaces = ['stations', 'shop', 'owner', 'frame', 'panels', 'job']
const stations = ['intake', 'triage', 'socket', 'firmware', 'parts', 'proof', 'hand-back']
const core = (...more) =>
  closed([
    ...impure,
    ...rooms('data', 'ui', 'app', 'workers', 'server', 'simulated-bench', ...surfaces),
    ...more,
  ])
/** A room of core and the rooms beside and above it, which it may not import. */
const inCore = (room, ...others) => ({
  files: [`src/core/${room}/**/*.ts`],
  ignores: ['**/*.test.ts', '**/*.testing.ts'],
  rules: core(...others.flatMap((other) => [`**/${other}/*`, `**/${other}/**`]), '**/slices'),
})

export default [
  {
    ignores: [
      '.next/**',
      '.next-test/**',
      '.arch-needle/**',
      'node_modules/**',
      'next-env.d.ts',
      'test-results/**',
    ],
  },
  ...next,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { varsIgnorePattern: '^_+$', argsIgnorePattern: '^_+$' },
      ],
      'import/no-anonymous-default-export': 'off',
      'no-console': 'error',
      '@next/next/no-img-element': 'off',
      'react-hooks/incompatible-library': 'off',
    },
  },
  { files: ['cli/**', 'scripts/**', 'bench/**', 'demo/**'], rules: { 'no-console': 'off' } },
  // Playwright's fixtures hand their value on by a function called `use`, which is no hook.
  { files: ['e2e/**'], rules: { 'react-hooks/rules-of-hooks': 'off' } },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...core(),
      'no-restricted-globals': ['error', 'document', 'window', 'process', 'Buffer', 'fetch'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Take a seed.' },
        { object: 'Date', property: 'now', message: 'Take the time as an argument.' },
      ],
    },
  },
  // In core: tape ← board ← stations side by side ← job, the roof.
  inCore('tape', 'board', ...stations, 'job', 'record', 'shop'),
  inCore('board', ...stations, 'job', 'record', 'shop'),
  inCore('work', ...stations, 'job', 'record', 'shop'),
  ...stations.map((station) =>
    inCore(station, ...stations.filter((other) => other !== station), 'job', 'record', 'shop'),
  ),
  { files: ['src/simulated-bench/**'], rules: closed(rooms('data', 'ui', 'app', 'workers', ...surfaces)) },
  {
    files: ['src/entry-schemas/**', 'src/tables/**'],
    rules: closed(rooms('data', 'ui', 'app', 'workers', 'server', ...surfaces)),
  },
  {
    files: ['src/data/**'],
    ignores: ['**/*.test.ts'],
    rules: closed(['react', 'react-*', 'konva', ...rooms('ui', 'app', 'workers', 'server', ...surfaces)]),
  },
  { files: ['src/server/**'], rules: closed(rooms('app', 'ui', 'workers', ...surfaces)) },
  { files: ['src/ui/**'], rules: closed(rooms('data', 'app', 'workers', 'server', ...surfaces)) },
  { files: ['src/workers/**'], rules: closed(rooms('data', 'ui', 'app', ...surfaces)) },
  { files: ['src/job/**'], rules: closed(rooms('app', 'stations', 'shop', 'frame', 'panels')) },
  { files: ['src/frame/**', 'src/panels/**'], rules: closed(rooms('app', 'stations', 'shop')) },
  { files: ['src/stations/**'], rules: closed(rooms('app', 'shop')) },
  { files: ['src/shop/**'], rules: closed(rooms('app')) },
  { files: ['src/owner/**'], rules: closed(rooms('app', 'stations', 'shop', 'frame', 'panels', 'job')) },
]
