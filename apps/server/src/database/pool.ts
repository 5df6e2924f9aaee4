import pg from 'pg'

// bigint: journal numbers stay far below 2^53, so numbers are safe. Calendar dates are text columns and need
// no parser.
pg.types.setTypeParser(pg.types.builtins.INT8, Number)

/** The role that owns nothing; every query of a garden runs under it. */
export const APP_ROLE = 'klados_app'
/** The role that reads accounts and sessions, and no garden. */
export const ACCOUNTS_ROLE = 'klados_accounts'

/** No request's statement takes this long; one that does has met a lock that nobody gives back. */
const STATEMENT_MS = 30_000
/** A transaction that its server forgot gives its locks back. */
const IDLE_IN_TRANSACTION_MS = 60_000

function createPool(databaseUrl: string, role: string, maxConnections: number): pg.Pool {
  const pool = new pg.Pool({
    connectionString: databaseUrl,
    max: maxConnections,
    options: `-c role=${role} -c statement_timeout=${STATEMENT_MS} -c idle_in_transaction_session_timeout=${IDLE_IN_TRANSACTION_MS}`,
    connectionTimeoutMillis: 5000,
    keepAlive: true,
  })
  // A connection may die at any moment: idle in the pool, or checked out between two statements. Without a
  // listener on both, its error would be nobody's and end the process; with it, the next statement fails and
  // the pool makes a new one.
  pool.on('error', () => undefined)
  pool.on('connect', (client) => client.on('error', () => undefined))
  return pool
}

/**
 * A pool of connections that have the app's role from their first moment, so that no query runs before it is
 * set.
 */
export function createAppPool(databaseUrl: string, maxConnections = 10): pg.Pool {
  return createPool(databaseUrl, APP_ROLE, maxConnections)
}

/** As `createAppPool`, for accounts, sessions and throttling. */
export function createAccountsPool(databaseUrl: string, maxConnections = 5): pg.Pool {
  return createPool(databaseUrl, ACCOUNTS_ROLE, maxConnections)
}
