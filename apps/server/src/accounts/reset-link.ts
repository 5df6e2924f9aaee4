import { createAccountsPool } from '../database/pool.ts'
import { findAccountId } from './queries.ts'
import { makeResetLink } from './reset.ts'

/** The operator's command: prints the path of a link that sets a new password for the address given. */
const [email = ''] = process.argv.slice(2)
const pool = createAccountsPool(process.env.DATABASE_URL!, 1)
const accountId = await findAccountId(pool, email.trim().toLowerCase())
if (accountId)
  process.stdout.write(`${JSON.stringify(await makeResetLink(pool, accountId, new Date(), null))}\n`)
else {
  process.stderr.write(`Nobody has signed up with ${email || 'no address'}\n`)
  process.exitCode = 1
}
await pool.end()
