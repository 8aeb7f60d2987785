import next from 'eslint-config-next'
import tseslint from 'typescript-eslint'

/** What a room may not import; the arrows go app → stations → (ui, workers, data) → core. */
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
      ...closed([...impure, ...rooms('data', 'ui', 'app', 'stations', 'workers', 'simulated-bench')]),
      'no-restricted-globals': ['error', 'document', 'window', 'process', 'Buffer', 'fetch'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Take a seed.' },
        { object: 'Date', property: 'now', message: 'Take the time as an argument.' },
      ],
    },
  },
  { files: ['src/simulated-bench/**'], rules: closed(rooms('data', 'ui', 'app', 'stations', 'workers')) },
  {
    files: ['src/data/**'],
    ignores: ['**/*.test.ts'],
    rules: closed(['react', 'react-*', 'konva', ...rooms('ui', 'app', 'stations', 'workers')]),
  },
  { files: ['src/server/**'], rules: closed(rooms('app', 'ui', 'workers')) },
  { files: ['src/ui/**'], rules: closed(rooms('data', 'app', 'stations', 'workers', 'server')) },
  { files: ['src/workers/**'], rules: closed(rooms('data', 'ui', 'app', 'stations')) },
  { files: ['src/stations/**'], rules: closed(rooms('app')) },
]
