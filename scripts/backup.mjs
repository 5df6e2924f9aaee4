import { mkdirSync, statSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { writeBackup } from './lib/backup.mjs'
import { withOwnDatabase } from './lib/own-database.mjs'
import { inRoot } from './lib/paths.mjs'
import { step } from './lib/run.mjs'

const WORDS = {
  account: 'accounts',
  garden: 'gardens',
  document_revision: 'revisions',
  entry: 'entries',
  file: 'photos',
}
/** `npm run backup [-- FILE]`: everything in one file, while Klados runs or not. */
const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-')
const file = process.argv[2] ? resolve(process.argv[2]) : inRoot('backups', `klados-${stamp}.backup`)
mkdirSync(dirname(file), { recursive: true })
try {
  await withOwnDatabase(async ({ url, bin }) => {
    const { tables } = await writeBackup({ url, bin, file })
    const parts = Object.entries(WORDS).map(([name, words]) => `${tables[name]?.rows ?? 0} ${words}`)
    step(parts.join(', '))
    process.stdout.write(`${file}\n${(statSync(file).size / 1024 ** 2).toFixed(1)} MB\n`)
  })
} catch (error) {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
}
