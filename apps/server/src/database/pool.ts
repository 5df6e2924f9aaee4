import pg from 'pg'

// bigint: journal numbers stay far below 2^53, so numbers are safe. Calendar dates are text columns and need no parser.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

/** The role that owns nothing; every query of the app runs under it. */
export const APP_ROLE = 'klados_app'

/** A pool of connections that have the app's role from their first moment, so that no query runs before it is set. */
export function createAppPool(databaseUrl: string, maxConnections = 10): pg.Pool {
  const pool = new pg.Pool({
    connectionString: databaseUrl,
    max: maxConnections,
    options: `-c role=${APP_ROLE}`,
    connectionTimeoutMillis: 5000,
  })
  // A connection that dies while idle is replaced at the next use; without a listener it would end the process.
  pool.on('error', () => undefined)
  return pool
}
