import { mkdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { TestProject } from 'vitest/node'

declare module 'vitest' {
  interface ProvidedContext {
    adminUrl: string
    webLogin: string
    /** A database as this release makes one, to be copied. */
    template: string
  }
}

/** One throw-away PostgreSQL for the whole run; every test file has a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const { createDatabase, startPostgres } = await import('../../../scripts/lib/postgres.mjs')
  const { inWork, workDir } = await import('../../../scripts/lib/paths.mjs')
  const { migrate } = await import('../src/database/migrate.ts')
  mkdirSync(workDir, { recursive: true })
  const server = await startPostgres(inWork('test-postgres'), { isDurable: false })
  writeFileSync(inWork('test-postgres.url'), server.adminUrl, { mode: 0o600 })
  const template = 'as_migrated'
  await createDatabase(server, template)
  await migrate(server.ownerUrl(template), fileURLToPath(new URL('../migrations', import.meta.url)))
  // Bundled where packages are found from; the threads and processes of all tests are made of these.
  const { bundle, sideFiles } = await import('../../../scripts/build-server.mjs')
  process.env.KLADOS_SIDE_FILES = inWork('test-side-files')
  await bundle(sideFiles, process.env.KLADOS_SIDE_FILES)
  project.provide('adminUrl', server.adminUrl)
  project.provide('template', template)
  project.provide('webLogin', server.appUrl('postgres'))
  return async () => {
    await server.stop('immediate')
    server.remove()
  }
}
