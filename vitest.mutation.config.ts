import { defineConfig } from 'vitest/config'

/** Rooms of core whose tests are about what is mutated: those of frames and loads would be run for each change in vain. */
const ROOMS = 'training,laying,wood,ties,choices,season,budget,journal,fold,tally'

/** The tests for the mutations of the long check. */
export default defineConfig({
  test: {
    include: [`packages/core/src/{${ROOMS}}/**/*.test.ts`, 'apps/web/src/data/sync/*.test.ts'],
    // Code with all its changes in it is several times as slow, the more so on a shared machine.
    testTimeout: 120_000,
    setupFiles: ['packages/core/test/limit-properties.ts'],
  },
})
