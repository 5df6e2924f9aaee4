import { spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { build, installPackages } from './lib/install.mjs'
import { keep } from './lib/keep.mjs'
import { takeLock } from './lib/lock.mjs'
import { logFolder, openLog } from './lib/logs.mjs'
import { inRoot, inData } from './lib/paths.mjs'
import { step } from './lib/run.mjs'

const hasDemo = !process.argv.includes('--no-demo')
const host = process.env.HOST ?? '127.0.0.1'
const wantedPort = Number(process.env.PORT ?? 4280)
const isSecured = Boolean(process.env.KLADOS_TLS_CERT && process.env.KLADOS_TLS_KEY)
const STOP_MS = 10_000
/** With this the server says that another try would end the same way. */
const EXIT_FOR_GOOD = 78

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

/**
 * A process beside this one that ends what is left should this one be lost; brought back should it be lost
 * itself.
 */
function postGuardian(lockFile) {
  const running = {}
  let guardian
  let isDismissed = false
  const say = (message) => guardian.stdin.write(`${JSON.stringify(message)}\n`)
  const post = () => {
    guardian = spawn(process.execPath, [inRoot('scripts/guardian.mjs'), lockFile], {
      detached: true,
      stdio: ['pipe', 'ignore', 'ignore'],
    })
    guardian.stdin.on('error', () => undefined)
    guardian.on('exit', () => !isDismissed && post())
    say(running)
  }
  post()
  return {
    tell: (news) => say(Object.assign(running, news)),
    dismiss: () => {
      isDismissed = true
      say('dismissed')
      guardian.stdin.end()
    },
  }
}

async function main() {
  const lockFile = inData('start.lock')
  const lock = takeLock(lockFile)
  if (lock.heldBy !== undefined) {
    throw new Error(
      `Klados is running from this folder already (process ${lock.heldBy}); stop that one first`,
    )
  }
  const guardian = postGuardian(lockFile)
  const kept = {}
  let database
  let server
  let isStopping = false
  const stop = async (code) => {
    if (isStopping) {
      // Asked a second time: no more waiting.
      server?.kill('SIGKILL')
      void database?.stop('immediate')
      return
    }
    isStopping = true
    kept.server?.stopping()
    kept.database?.stopping()
    if (server && server.exitCode === null && server.signalCode === null) {
      const gone = new Promise((resolve) => server.once('exit', resolve))
      server.kill('SIGTERM')
      await Promise.race([gone, pause(STOP_MS, undefined, { ref: false }).then(() => server.kill('SIGKILL'))])
      await gone
    }
    await database?.stop()
    guardian.dismiss()
    lock.release()
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0))
  const giveUp = (error) => {
    if (isStopping) return
    process.stderr.write(`\n${error.message}\nThe logs are in ${logFolder}\n`)
    return stop(1)
  }

  try {
    await installPackages()
    await build()
    const serverLog = await openLog('server')
    let urls = { DATABASE_URL: process.env.DATABASE_URL, APP_DATABASE_URL: process.env.APP_DATABASE_URL }
    if (!urls.DATABASE_URL) {
      const { createDatabase, startPostgres } = await import('./lib/postgres.mjs')
      const log = await openLog('database')
      step('starting the database')
      kept.database = keep({
        name: 'database',
        tell: step,
        launch: async () => {
          // On the port that it had: the server knows no other.
          database = await startPostgres(inData('postgres'), { log, port: database?.port })
          const { bin, data, user } = database
          guardian.tell({ database: { pgCtl: join(bin, 'pg_ctl'), data, uid: user?.uid, gid: user?.gid } })
          return database
        },
      })
      await kept.database.ready
      kept.database.over.catch(giveUp)
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
    kept.server = keep({
      name: 'server',
      tell: step,
      launch: () => {
        server = launchServer(env, serverLog)
        guardian.tell({ server: server.pid })
        return server.isReady
      },
    })
    await kept.server.ready
    kept.server.over.catch(giveUp)
    process.stdout.write(
      `\nKlados is at ${isSecured ? 'https' : 'http'}://${host}:${port}\nLogs are in ${logFolder}\n(Ctrl-C stops it)\n`,
    )
  } catch (error) {
    await giveUp(error)
  }
}

/** How much of what it said last is told when it fails. */
const SAID = 1500

/** The server's process, with `isReady` for the moment at which it listens. */
function launchServer(env, log) {
  const child = spawn(process.execPath, ['--enable-source-maps', inRoot('apps/server/dist/main.mjs')], {
    env,
    // A group of its own, so that Ctrl-C comes to this script alone and the order of stopping is ours.
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
  })
  let said = ''
  const hear = (chunk) => {
    said = (said + chunk).slice(-SAID)
    log.write(chunk)
  }
  child.stdout.on('data', hear)
  child.stderr.on('data', hear)
  const gone = new Promise((resolve) =>
    child.once('exit', (code, signal) => resolve({ code, signal, said: said.trim() })),
  )
  child.isReady = new Promise((resolve, reject) => {
    child.once('message', () => resolve({ gone }))
    child.once('error', reject)
    void gone.then(({ code, signal }) =>
      reject(
        Object.assign(new Error(`it ended with ${signal ?? `code ${code}`}\n${said.trim()}`), {
          isFinal: code === EXIT_FOR_GOOD,
        }),
      ),
    )
  })
  return child
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
