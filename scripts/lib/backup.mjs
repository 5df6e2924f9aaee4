import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import { open, rename, rm } from 'node:fs/promises'
import { pipeline } from 'node:stream/promises'
import { join } from 'node:path'
import { runQuietly } from './run.mjs'

const FORMAT = 'klados-backup'
const VERSION = 1
/** What nobody needs back: how often somebody has asked lately. */
const LEFT_OUT = ['throttle']
/** The first line of the file, padded with blanks, so that it can be written last. */
const HEAD_BYTES = 65_536

/**
 * Everything that a database holds, as of one moment, in one file: a first line that says what is in it, with
 * a hash over every table's rows and one over the rest of the file, and then what pg_dump makes of that very
 * moment. Others go on writing meanwhile.
 */
export async function writeBackup({ url, bin, file, now = new Date() }) {
  const client = await connect(url)
  const partial = `${file}.part`
  try {
    await client.query('begin isolation level repeatable read read only')
    const { rows } = await client.query('select pg_export_snapshot() as snapshot')
    const tables = await hashTables(client)
    const migrations = await listMigrations(client)
    const handle = await open(partial, 'w', 0o600)
    await handle.write(Buffer.alloc(HEAD_BYTES, ' '))
    await handle.close()
    const dump = `${partial}.dump`
    const args = ['--format=custom', '--no-owner', `--snapshot=${rows[0].snapshot}`, `--file=${dump}`]
    await runTool(bin, 'pg_dump', url, [...args, ...LEFT_OUT.map((name) => `--exclude-table-data=${name}`)])
    await client.query('commit')
    await pipeline(createReadStream(dump), createWriteStream(partial, { flags: 'r+', start: HEAD_BYTES }))
    await rm(dump)
    const sha256 = await hashFrom(partial, HEAD_BYTES)
    const head = { format: FORMAT, version: VERSION, madeAt: now.toISOString(), sha256, migrations, tables }
    const line = `${JSON.stringify(head)}\n`
    if (line.length > HEAD_BYTES)
      throw new Error('There are more tables than the head of a backup has room for')
    const again = await open(partial, 'r+')
    await again.write(line, 0)
    await again.sync()
    await again.close()
    await rename(partial, file)
    return head
  } finally {
    await client.end().catch(() => undefined)
    await rm(partial, { force: true })
    await rm(`${partial}.dump`, { force: true })
  }
}

/** What a backup says of itself; throws where it is none, or is not whole any more. */
export async function readBackup(file) {
  const handle = await open(file, 'r')
  const head = Buffer.alloc(HEAD_BYTES)
  const { bytesRead } = await handle.read(head, 0, HEAD_BYTES, 0)
  await handle.close()
  let parsed = null
  try {
    parsed = JSON.parse(head.subarray(0, bytesRead).toString('utf8').split('\n')[0])
  } catch {
    // Told below.
  }
  if (parsed?.format !== FORMAT) throw new Error(`${file} is no backup of Klados`)
  if (parsed.version !== VERSION)
    throw new Error(`${file} is a backup of version ${parsed.version}; this release reads version ${VERSION}`)
  if ((await hashFrom(file, HEAD_BYTES)) !== parsed.sha256)
    throw new Error(`${file} is damaged: its content does not match the hash that was written with it`)
  return parsed
}

/**
 * Fills an empty database from a backup and holds every table to the hash that was taken when the backup was
 * made.
 */
export async function fillFrom({ url, bin, file }) {
  const head = await readBackup(file)
  const dump = `${file}.restoring`
  try {
    await pipeline(createReadStream(file, { start: HEAD_BYTES }), createWriteStream(dump, { mode: 0o600 }))
    const { pathname } = new URL(url)
    const args = ['--no-owner', '--exit-on-error', '--single-transaction', `--dbname=${pathname.slice(1)}`]
    await runTool(bin, 'pg_restore', url, [...args, dump])
  } finally {
    await rm(dump, { force: true })
  }
  const client = await connect(url)
  try {
    const tables = await hashTables(client)
    const wrong = Object.keys(head.tables).filter((name) => tables[name]?.hash !== head.tables[name].hash)
    if (wrong.length > 0) throw new Error(`These tables did not come back as they were: ${wrong.join(', ')}`)
    return head
  } finally {
    await client.end()
  }
}

/** The rows of every table by their number and one hash, whatever order they lie in. */
export async function hashTables(client) {
  for (const setting of [
    "timezone = 'UTC'",
    "datestyle = 'ISO'",
    'extra_float_digits = 1',
    'bytea_output = hex',
  ])
    await client.query(`set local ${setting}`)
  const { rows } = await client.query(`select tablename as name from pg_tables where schemaname = 'public'`)
  const tables = {}
  for (const { name } of rows.sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (LEFT_OUT.includes(name)) continue
    const { rows: sums } = await client.query(
      `select count(*)::integer as rows,
         encode(sha256(convert_to(coalesce(string_agg(h, '' order by h), ''), 'UTF8')), 'hex') as hash
       from (select encode(sha256(convert_to(t::text, 'UTF8')), 'hex') as h from "${name}" t) as hashed`,
    )
    tables[name] = sums[0]
  }
  return tables
}

export async function listMigrations(client) {
  const { rows } = await client.query('select name from migration order by id')
  return rows.map((row) => row.name)
}

export async function connect(url) {
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: url })
  client.on('error', () => undefined)
  await client.connect()
  return client
}

async function hashFrom(file, start) {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file, { start }), hash)
  return hash.digest('hex')
}

/** The password goes by the environment: arguments can be read by everybody on the machine. */
function runTool(bin, tool, url, args) {
  const { hostname, port, username, password, pathname } = new URL(url)
  const env = {
    ...process.env,
    PGHOST: hostname,
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: pathname.slice(1),
  }
  return runQuietly(join(bin, tool), args, { env })
}
