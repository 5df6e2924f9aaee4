import { defineConfig } from '@playwright/test'

/** Files with tests of half a minute: they begin, so that no core waits for one of them at the end. */
const LONG = /(away|held|screens|years)\.spec\.ts$/

export default defineConfig({
  testDir: '.',
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'short', testMatch: '*.spec.ts', testIgnore: LONG },
  ],
  fullyParallel: true,
  workers: 2,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  forbidOnly: true,
  // On a shared machine one of a thousand comes too late now and then; the check names what passed only so.
  retries: 1,
  outputDir: '../test-results',
  reporter: [
    ['list'],
    ...(process.env.PLAYWRIGHT_JSON ? [['json', { outputFile: process.env.PLAYWRIGHT_JSON }] as const] : []),
  ],
  use: {
    baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:4280',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // Requests are watched and held up by tests; where the pages come from this device, a test says so.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        // Pages are painted by the processor here: one thread of one process does it with the least ado, and all pages
        // of the site share one that stays.
        '--disable-gpu',
        '--disable-software-rasterizer',
        '--in-process-gpu',
        '--num-raster-threads=1',
        '--process-per-site',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
