import { existsSync } from 'node:fs'
import { defineConfig } from '@playwright/test'

/** Chromium without windows takes a quarter less of the processor than Chromium that hides them. */
const SHELL = '/usr/bin/chromium-headless-shell'

export default defineConfig({
  testDir: '.',
  outputDir: '../../test-results/e2e',
  fullyParallel: true,
  workers: 2,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: '../../test-results/e2e.json' }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM || (existsSync(SHELL) ? SHELL : '/usr/bin/chromium'),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
