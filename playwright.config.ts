import { defineConfig } from '@playwright/test'

const flags = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

export default defineConfig({
  testDir: 'e2e',
  timeout: 180_000,
  expect: { timeout: 30_000 },
  workers: 2,
  fullyParallel: false,
  reporter: [['list']],
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/Oslo',
    launchOptions: { executablePath: '/usr/bin/chromium', args: flags },
  },
})
