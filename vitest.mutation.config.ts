import { defineConfig } from 'vitest/config'

/** The tests that need neither server nor database, for the mutations of the long check. */
export default defineConfig({
  test: {
    include: ['packages/**/*.test.ts', 'apps/web/src/data/sync/*.test.ts'],
    // Code with all its changes in it is several times as slow, the more so on a shared machine.
    testTimeout: 120_000,
    setupFiles: ['packages/core/test/limit-properties.ts'],
  },
})
