import { spawn } from 'node:child_process'
import { requireChromium } from './debian.mjs'
import { freePort } from './free-port.mjs'
import { inRoot, inWork } from './paths.mjs'
import { createDatabase, startPostgres } from './postgres.mjs'

/** Starts the built server on a database and waits until it listens. */
export async function startServer(urls, { hasDemo = true, port } = {}) {
  const chosen = port ?? (await freePort())
  const child = spawn(process.execPath, ['--enable-source-maps', inRoot('apps/server/dist/main.mjs')], {
    env: {
      ...process.env,
      ...urls,
      HOST: '127.0.0.1',
      PORT: String(chosen),
      KLADOS_DEMO: hasDemo ? '1' : '0',
      KLADOS_LIMITS: 'off',
      NODE_ENV: 'production',
    },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  })
  await new Promise((resolve, reject) => {
    child.once('message', resolve)
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)))
  })
  const gone = new Promise((resolve) => child.once('exit', resolve))
  return {
    port: chosen,
    baseUrl: `http://127.0.0.1:${chosen}`,
    kill: async (signal) => {
      child.kill(signal)
      await gone
    },
  }
}

/**
 * A throw-away database with the demo garden, a server on it and a browser, for browser tests, screenshots
 * and measurements.
 */
export async function withTestServer(work) {
  const chromium = await requireChromium()
  const database = await startPostgres(inWork('browser-postgres'), { isDurable: false })
  try {
    await createDatabase(database, 'klados')
    const urls = {
      DATABASE_URL: database.ownerUrl('klados'),
      APP_DATABASE_URL: database.appUrl('klados'),
    }
    const server = await startServer(urls)
    try {
      // The database too: some tests stop and start a server of their own on it.
      return await work({ BASE_URL: server.baseUrl, CHROMIUM: chromium, ...urls })
    } finally {
      await server.kill('SIGTERM')
    }
  } finally {
    await database.stop('immediate')
    database.remove()
  }
}
