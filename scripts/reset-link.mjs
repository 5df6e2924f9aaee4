import { build } from './lib/install.mjs'
import { withOwnDatabase } from './lib/own-database.mjs'
import { inRoot } from './lib/paths.mjs'
import { runQuietly } from './lib/run.mjs'

/** `npm run reset-link -- somebody@garden.example`: a link that sets a new password, once, within a day. */
try {
  await withOwnDatabase(async ({ url }) => {
    await build()
    const said = await runQuietly(
      process.execPath,
      [inRoot('apps/server/dist/reset-link.mjs'), process.argv[2] ?? ''],
      { env: { ...process.env, DATABASE_URL: url } },
    )
    const { path, expiresAt } = JSON.parse(said)
    const { HOST = '127.0.0.1', PORT = '4280' } = process.env
    process.stdout.write(
      `http://${HOST}:${PORT}${path}\nHand it over yourself. It works once, until ${expiresAt}\n`,
    )
  })
} catch (error) {
  process.stderr.write(`${error.message.split('\n').filter(Boolean).at(-1)}\n`)
  process.exit(1)
}
