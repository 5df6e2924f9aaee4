import { defineConfig } from 'vitest/config'

/** As often as the long check tries a property, so much longer a test of it may take. */
const times = Number(process.env.KLADOS_RUNS ?? 1)
const testTimeout = 20_000 * times
const setupFiles = ['packages/core/test/limit-properties.ts']

export default defineConfig({
  test: {
    // Both cores, and while one test waits another works; the check tells each of its parts how many.
    maxWorkers: 3,
    projects: [
      // What is pure needs no world of its own for each file.
      { test: { name: 'core', include: ['packages/**/*.test.ts'], isolate: false, testTimeout, setupFiles } },
      {
        test: {
          name: 'server',
          setupFiles,
          isolate: false,
          include: ['apps/server/**/*.test.ts'],
          globalSetup: 'apps/server/test/global-setup.ts',
          testTimeout: 60_000 * times,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'web',
          include: ['apps/web/**/*.test.{ts,tsx}'],
          isolate: false,
          testTimeout,
          setupFiles,
        },
      },
    ],
  },
})
