import { spawn } from 'node:child_process'
import { installPackages } from './lib/install.mjs'
import { inRoot, inWork, root } from './lib/paths.mjs'
import { step } from './lib/run.mjs'

/**
 * Server and web app from their sources, both restarted or reloaded on change, on the same private database
 * as npm start.
 */
await installPackages()
const { createDatabase, startPostgres } = await import('./lib/postgres.mjs')
step('starting the database')
const database = await startPostgres(inWork('postgres'))
await createDatabase(database, 'klados')
const port = process.env.PORT ?? '4281'
const env = {
  ...process.env,
  DATABASE_URL: database.ownerUrl('klados'),
  APP_DATABASE_URL: database.appUrl('klados'),
  PORT: port,
  KLADOS_DEMO: '1',
  KLADOS_API: `http://127.0.0.1:${port}`,
}
const server = spawn(inRoot('node_modules/.bin/tsx'), ['watch', 'src/main.ts'], {
  cwd: inRoot('apps/server'),
  env,
  stdio: 'inherit',
})
const web = spawn(inRoot('node_modules/.bin/vite'), ['--host', '127.0.0.1'], {
  cwd: inRoot('apps/web'),
  env,
  stdio: 'inherit',
})
const stop = async () => {
  server.kill('SIGTERM')
  web.kill('SIGTERM')
  if (!database.isTakenOver) await database.stop()
  process.exit(0)
}
process.on('SIGINT', () => void stop())
process.on('SIGTERM', () => void stop())
step(`sources in ${root}`)
