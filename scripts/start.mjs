import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { build, installPackages } from './lib/install.mjs'
import { takeLock } from './lib/lock.mjs'
import { inRoot, inWork } from './lib/paths.mjs'
import { step } from './lib/run.mjs'

const hasDemo = !process.argv.includes('--no-demo')
const host = process.env.HOST ?? '127.0.0.1'
const wantedPort = Number(process.env.PORT ?? 4280)

const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer()
    probe.on('error', () => resolve(false))
    probe.listen(port, host, () => probe.close(() => resolve(true)))
  })

async function pickPort() {
  for (let port = wantedPort; port < wantedPort + 20; port++) {
    if (await isFree(port)) {
      if (port !== wantedPort) step(`port ${wantedPort} is taken; using ${port}`)
      return port
    }
  }
  throw new Error(`Ports ${wantedPort} to ${wantedPort + 19} are all taken; set PORT to a free one`)
}

async function main() {
  const lock = takeLock(inWork('start.lock'))
  if (lock.heldBy !== undefined) {
    throw new Error(
      `Klados is running from this folder already (process ${lock.heldBy}); stop that one first`,
    )
  }
  let database
  let server
  let isStopping = false
  const stop = async (code) => {
    if (isStopping) return
    isStopping = true
    if (server && server.exitCode === null) {
      server.kill('SIGTERM')
      await new Promise((resolve) => server.once('exit', resolve))
    }
    await database?.stop()
    lock.release()
    process.exit(code)
  }
  process.on('SIGINT', () => void stop(0))
  process.on('SIGTERM', () => void stop(0))
  try {
    await installPackages()
    await build()
    let urls = { DATABASE_URL: process.env.DATABASE_URL, APP_DATABASE_URL: process.env.APP_DATABASE_URL }
    if (!urls.DATABASE_URL) {
      const { createDatabase, startPostgres } = await import('./lib/postgres.mjs')
      step('starting the database')
      database = await startPostgres(inWork('postgres'))
      await createDatabase(database, 'klados')
      urls = { DATABASE_URL: database.ownerUrl('klados'), APP_DATABASE_URL: database.appUrl('klados') }
    }
    const port = await pickPort()
    step(
      hasDemo ? 'starting the server, with the demo garden' : 'starting the server, without the demo garden',
    )
    const inherited = Object.entries(process.env).filter(([name]) => !(name in urls))
    const given = Object.entries(urls).filter(([, value]) => value !== undefined)
    const env = {
      ...Object.fromEntries([...inherited, ...given]),
      HOST: host,
      PORT: String(port),
      KLADOS_DEMO: hasDemo ? '1' : '0',
      NODE_ENV: 'production',
    }
    server = spawn(process.execPath, ['--enable-source-maps', inRoot('apps/server/dist/main.mjs')], {
      env,
      // A group of its own, so that Ctrl-C comes to this script alone and the order of stopping is ours.
      detached: true,
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    })
    server.once('message', () =>
      process.stdout.write(`\nKlados is at http://${host}:${port}\n(Ctrl-C stops it)\n`),
    )
    server.once('exit', (code) => void stop(code ?? 1))
  } catch (error) {
    process.stderr.write(`\n${error.message}\n`)
    await stop(1)
  }
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
