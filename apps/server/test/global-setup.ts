import { mkdirSync, writeFileSync } from 'node:fs'
import type { TestProject } from 'vitest/node'

declare module 'vitest' {
  interface ProvidedContext {
    adminUrl: string
    webLogin: string
  }
}

/** One throw-away PostgreSQL for the whole run; every test file makes a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const { startPostgres } = await import('../../../scripts/lib/postgres.mjs')
  const { inWork, workDir } = await import('../../../scripts/lib/paths.mjs')
  mkdirSync(workDir, { recursive: true })
  const server = await startPostgres(inWork('test-postgres'), { isDurable: false })
  writeFileSync(inWork('test-postgres.url'), server.adminUrl, { mode: 0o600 })
  project.provide('adminUrl', server.adminUrl)
  project.provide('webLogin', server.appUrl('postgres'))
  return async () => {
    await server.stop('immediate')
    server.remove()
  }
}
