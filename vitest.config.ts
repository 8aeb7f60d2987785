import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  resolve: { alias: { '@': at('./src'), 'server-only': at('./src/data/server-only.stub.ts') } },
  test: {
    include: [
      'src/**/*.test.ts',
      'src/**/*.test.tsx',
      'cli/**/*.test.ts',
      'demo/**/*.test.ts',
      'scripts/**/*.test.ts',
    ],
    setupFiles: ['./src/properties.testing.ts'],
    maxWorkers: 2,
    testTimeout: 120_000, // these machines can be twenty times slower than usual,
    hookTimeout: 120_000, // and their disks as well
  },
})
