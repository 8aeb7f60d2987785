import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  resolve: { alias: { '@': at('./src'), 'server-only': at('./src/data/server-only.stub.ts') } },
  test: {
    setupFiles: ['./src/properties.testing.ts'],
    maxWorkers: 2,
    testTimeout: 120_000, // these machines can be twenty times slower than usual,
    hookTimeout: 120_000, // and their disks as well
    projects: [
      // The core holds nothing between two tests: its files share a thread’s modules, a third less work.
      {
        extends: true,
        test: { name: 'core', include: ['src/core/**/*.test.ts', 'cli/**/*.test.ts'], isolate: false },
      },
      {
        extends: true,
        test: {
          name: 'shop',
          include: ['src/**/*.test.{ts,tsx}', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          exclude: ['src/core/**'],
        },
      },
    ],
  },
})
