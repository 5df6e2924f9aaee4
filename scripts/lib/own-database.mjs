import { requireTools } from './debian.mjs'
import { installPackages } from './install.mjs'
import { inData } from './paths.mjs'

/**
 * The database that Klados works on, running or started for the while: the private one, or that of
 * DATABASE_URL. `work` gets its owner's address for a database by name, and the folder of PostgreSQL's
 * programs.
 */
export async function withOwnDatabase(work) {
  await installPackages()
  const { requirePostgres, startPostgres } = await import('./postgres.mjs')
  requireTools(await requirePostgres(), ['pg_dump', 'pg_restore'])
  if (process.env.DATABASE_URL) {
    const bin = await requirePostgres()
    return work({ url: process.env.DATABASE_URL, bin, server: null })
  }
  const server = await startPostgres(inData('postgres'))
  try {
    return await work({ url: server.ownerUrl('klados'), bin: server.bin, server })
  } finally {
    if (!server.isTakenOver) await server.stop()
  }
}
