import { defineConfig } from 'vitest/config'

/** The tests that need neither server nor database, for the mutations of the long check. */
export default defineConfig({
  test: { include: ['packages/**/*.test.ts', 'apps/web/src/data/sync/*.test.ts'] },
})
