import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', include: ['packages/**/*.test.ts'] } },
      {
        test: {
          name: 'server',
          include: ['apps/server/**/*.test.ts'],
          globalSetup: 'apps/server/test/global-setup.ts',
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      { test: { name: 'web', include: ['apps/web/**/*.test.{ts,tsx}'] } },
    ],
  },
})
