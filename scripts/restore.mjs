import { existsSync, readdirSync } from 'node:fs'
import { resolve } from 'node:path'
import { connect, fillFrom, readBackup } from './lib/backup.mjs'
import { holderOf } from './lib/lock.mjs'
import { withOwnDatabase } from './lib/own-database.mjs'
import { inRoot, inData } from './lib/paths.mjs'
import { step } from './lib/run.mjs'

/**
 * `npm run restore -- FILE [--replace]`: what is there already is put by under another name, never deleted.
 */
const [given] = process.argv.slice(2).filter((one) => !one.startsWith('--'))
const mayReplace = process.argv.includes('--replace')

async function main() {
  if (!given || !existsSync(given)) throw new Error('Name the backup: npm run restore -- FILE')
  const file = resolve(given)
  const holder = holderOf(inData('start.lock'))
  if (holder !== null && !process.env.DATABASE_URL)
    throw new Error(`Klados is running from this folder (process ${holder}); stop it first`)
  const head = await readBackup(file)
  const known = readdirSync(inRoot('apps/server/migrations')).map((name) => name.replace(/\.sql$/, ''))
  const later = head.migrations.filter((name) => !known.includes(name))
  if (later.length > 0) throw new Error(`This backup is of a later release (it has ${later.join(', ')})`)
  step(`the backup of ${head.madeAt} is whole`)
  await withOwnDatabase(async ({ url, bin, server }) => {
    if (server) await restoreOwn(server, bin, file)
    else {
      const people = await peopleIn(url)
      if (people !== null)
        throw new Error('The database of DATABASE_URL is not empty; restore into an empty one')
      await makeRoles(url)
      await fillFrom({ url, bin, file })
    }
  })
  for (const [name, { rows }] of Object.entries(head.tables)) step(`${name}: ${rows} rows, as they were`)
  process.stdout.write('Restored. Start Klados with npm start\n')
}

/**
 * Into a database of its own, which takes the place of the present one only once it is held to every hash.
 */
async function restoreOwn(server, bin, file) {
  const people = await peopleIn(server.ownerUrl('klados')).catch(() => null)
  if (people > 0 && !mayReplace)
    throw new Error(
      `There are ${people} accounts here already. To put all of it by under another name and restore in its place: npm run restore -- FILE --replace`,
    )
  const admin = await connect(server.adminUrl)
  try {
    await admin.query('drop database if exists klados_restoring')
    await admin.query('create database klados_restoring')
    await fillFrom({ url: server.ownerUrl('klados_restoring'), bin, file })
    const { rowCount } = await admin.query(`select from pg_database where datname = 'klados'`)
    if (rowCount > 0) {
      const aside = `klados_before_${Date.now()}`
      await admin.query(`alter database klados rename to ${aside}`)
      step(`what was here is put by as database ${aside}`)
    }
    await admin.query('alter database klados_restoring rename to klados')
  } finally {
    await admin.end()
  }
}

/** How many have an account there who are not of the demo; null where there is nothing at all. */
async function peopleIn(url) {
  const client = await connect(url)
  try {
    const { rowCount } = await client.query(
      `select from pg_tables where tablename = 'account' and schemaname = 'public'`,
    )
    if (rowCount === 0) return null
    const { rows } = await client.query(
      `select count(*)::integer as n from account where email not like '%@tarn-close.invalid'`,
    )
    return rows[0].n
  } finally {
    await client.end()
  }
}

async function makeRoles(url) {
  const client = await connect(url)
  try {
    for (const role of ['klados_app', 'klados_accounts'])
      await client.query(
        `do $$ begin create role ${role} nologin; exception when duplicate_object then null; end $$`,
      )
  } finally {
    await client.end()
  }
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
