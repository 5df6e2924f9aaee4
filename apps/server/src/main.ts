import { readFileSync } from 'node:fs'
import { PART_FOLD_RULES } from '@klados/core/part-fold'
import { fileURLToPath } from 'node:url'
import { buildApp } from './app.ts'
import { LaterRelease, migrate } from './database/migrate.ts'
import { gardensToFold } from './database/to-fold.ts'
import { createAccountsPool, createAppPool } from './database/pool.ts'
import { noLimits, usualLimits } from './limits.ts'
import { describeError } from './errors.ts'

/**
 * Environment: DATABASE_URL (the owner, for migrations), APP_DATABASE_URL (the login that serves requests;
 * the owner's where absent), HOST, PORT, KLADOS_DEMO=1 for the demo garden, KLADOS_TRUSTED_PROXY (addresses
 * or networks of proxies in front, by commas), KLADOS_QUOTA_MB and KLADOS_QUOTA_GARDENS for one account,
 * KLADOS_TLS_CERT and KLADOS_TLS_KEY (files: then it speaks HTTPS), KLADOS_LIMITS=off for load tests.
 */
async function main(): Promise<void> {
  const {
    DATABASE_URL,
    APP_DATABASE_URL,
    HOST = '127.0.0.1',
    PORT = '4280',
    KLADOS_DEMO,
    KLADOS_LIMITS,
    KLADOS_TRUSTED_PROXY = '',
    KLADOS_QUOTA_MB,
    KLADOS_QUOTA_GARDENS,
    KLADOS_TLS_CERT,
    KLADOS_TLS_KEY,
  } = process.env
  if (!DATABASE_URL) throw new Error('DATABASE_URL is not set; npm start sets it')
  // Both folders lie beside `src` and beside the bundle in `dist` alike.
  await onceThere(() => migrate(DATABASE_URL, fileURLToPath(new URL('../migrations', import.meta.url))))
  const toFold = await onceThere(() => gardensToFold(DATABASE_URL, PART_FOLD_RULES))
  const databaseUrl = APP_DATABASE_URL ?? DATABASE_URL
  const pool = createAppPool(databaseUrl)
  const accounts = createAccountsPool(databaseUrl)
  const hasDemo = KLADOS_DEMO === '1'
  const app = await buildApp({
    pool,
    accounts,
    databaseUrl,
    toFold,
    hasDemo,
    webRoot: fileURLToPath(new URL('../../web/dist', import.meta.url)),
    limits:
      KLADOS_LIMITS === 'off'
        ? noLimits
        : {
            ...usualLimits,
            ...(KLADOS_QUOTA_MB ? { bytes: Number(KLADOS_QUOTA_MB) * 1024 ** 2 } : {}),
            ...(KLADOS_QUOTA_GARDENS ? { gardens: Number(KLADOS_QUOTA_GARDENS) } : {}),
          },
    trustedProxies: KLADOS_TRUSTED_PROXY.split(',')
      .map((one) => one.trim())
      .filter(Boolean),
    logLevel: 'warn',
    ...(KLADOS_TLS_CERT && KLADOS_TLS_KEY
      ? { tls: { cert: readFileSync(KLADOS_TLS_CERT), key: readFileSync(KLADOS_TLS_KEY) } }
      : {}),
  })
  app.addHook('onClose', async () => {
    await Promise.all([pool.end(), accounts.end()])
  })
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

/** Tells the start command that another try would end the same way (EX_CONFIG of sysexits). */
const EXIT_FOR_GOOD = 78

/** A database that is being brought back itself is waited for. */
const PATIENCE_MS = 60_000
const AGAIN_MS = 500

async function onceThere<T>(work: () => Promise<T>): Promise<T> {
  for (const until = Date.now() + PATIENCE_MS; ; ) {
    try {
      return await work()
    } catch (error) {
      if (describeError(error as Error).code !== 'server/unavailable' || Date.now() > until) throw error
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS))
    }
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`)
  process.exit(error instanceof LaterRelease ? EXIT_FOR_GOOD : 1)
})
