import { fileURLToPath } from 'node:url'
import { buildApp } from './app.ts'
import { migrate } from './database/migrate.ts'
import { createAppPool } from './database/pool.ts'
import { seedDemo } from './demo/seed.ts'

/**
 * Environment: DATABASE_URL (the owner, for migrations), APP_DATABASE_URL (the login that serves requests; the owner's
 * where absent), HOST, PORT, KLADOS_DEMO=1 for the demo garden, KLADOS_LIMITS=off for load tests.
 */
async function main(): Promise<void> {
  const {
    DATABASE_URL,
    APP_DATABASE_URL,
    HOST = '127.0.0.1',
    PORT = '4280',
    KLADOS_DEMO,
    KLADOS_LIMITS,
  } = process.env
  if (!DATABASE_URL) throw new Error('DATABASE_URL is not set; npm start sets it')
  // Both folders lie beside `src` and beside the bundle in `dist` alike.
  await migrate(DATABASE_URL, fileURLToPath(new URL('../migrations', import.meta.url)))
  const pool = createAppPool(APP_DATABASE_URL ?? DATABASE_URL)
  const hasDemo = KLADOS_DEMO === '1'
  if (hasDemo) await seedDemo(DATABASE_URL, pool, new Date())
  const isUnlimited = KLADOS_LIMITS === 'off'
  const app = await buildApp({
    pool,
    hasDemo,
    webRoot: fileURLToPath(new URL('../../web/dist', import.meta.url)),
    signInsPerMinute: isUnlimited ? 1_000_000 : 20,
    requestsPerMinute: isUnlimited ? 10_000_000 : 3000,
    logLevel: 'warn',
  })
  app.addHook('onClose', () => pool.end())
  let isClosing = false
  const stop = () => {
    if (isClosing) return
    isClosing = true
    void app.close().then(() => process.exit(0))
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
  // Killed outright, the start script cannot stop us: its end of the channel closing tells us to go.
  process.on('disconnect', stop)
  await app.listen({ host: HOST, port: Number(PORT) })
  process.send?.('listening')
  process.stdout.write(`listening on http://${HOST}:${PORT}\n`)
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`)
  process.exit(1)
})
