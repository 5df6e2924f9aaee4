import { readdirSync } from 'node:fs'
import { runner } from 'node-pg-migrate'
import pg from 'pg'
import { upcastDocuments } from './upcast-documents.ts'
import { ACCOUNTS_ROLE, APP_ROLE } from './pool.ts'

/**
 * Brings a database up to this release: the roles, then every numbered migration not yet applied, in order,
 * in one transaction, one runner at a time (the package takes an advisory lock and refuses migrations out of
 * order). A database that a later release has been at is refused: this one would not know what it reads, and
 * would write what that one does not expect.
 */
export async function migrate(ownerUrl: string, migrationsDir: string): Promise<string[]> {
  const client = new pg.Client({ connectionString: ownerUrl })
  // The connection may die between two statements; the statement after it tells.
  client.on('error', () => undefined)
  await client.connect()
  try {
    await requireKnown(client, migrationsDir)
    await createRoles(client)
    const applied = await runner({
      dbClient: client,
      dir: migrationsDir,
      direction: 'up',
      migrationsTable: 'migration',
      checkOrder: true,
      // Several servers may be started at once: each waits for the one that migrates.
      advisoryLockMode: 'wait',
      log: () => undefined,
    })
    // A database at an earlier number, as tests make one, has no record of steps yet.
    const { rows } = await client.query(`select to_regclass('public.body_upcast') is not null as "isThere"`)
    if (rows[0].isThere) await upcastDocuments(client)
    return applied.map((migration) => migration.name)
  } finally {
    await client.end()
  }
}

/** Starting again does not help: another release is needed. */
export class LaterRelease extends Error {
  override readonly name = 'LaterRelease'
}

async function requireKnown(client: pg.Client, migrationsDir: string): Promise<void> {
  const { rows: tables } = await client.query(
    `select from pg_tables where tablename = 'migration' and schemaname = 'public'`,
  )
  if (tables.length === 0) return
  const { rows } = await client.query<{ name: string }>(`select name from migration order by id`)
  const own = new Set(readdirSync(migrationsDir).map((file) => file.replace(/\.sql$/, '')))
  const later = rows.filter((row) => !own.has(row.name)).map((row) => row.name)
  if (later.length > 0)
    throw new LaterRelease(
      `This database belongs to a later release of Klados (it has ${later.join(', ')}). Start that release, or restore a backup that this one made; nothing was changed.`,
    )
}

/**
 * Roles belong to the whole database server: another database of the same server may have made them already.
 */
async function createRoles(client: pg.Client): Promise<void> {
  for (const role of [APP_ROLE, ACCOUNTS_ROLE]) {
    await client.query(`
      do $$ begin
        create role ${role} nologin;
      exception when duplicate_object or unique_violation then null;
      end $$`)
    await grantRole(client, role, 'current_user')
  }
  // A login of the user's own that serves requests was once given the one role; it needs both.
  const { rows } = await client.query<{ login: string }>(
    `select quote_ident(r.rolname) as login from pg_auth_members m join pg_roles r on r.oid = m.member
     where m.roleid = $1::regrole and r.rolname <> current_user and not pg_has_role(r.oid, $2, 'member')`,
    [APP_ROLE, ACCOUNTS_ROLE],
  )
  for (const { login } of rows) await client.query(`grant ${ACCOUNTS_ROLE} to ${login}`)
}

async function grantRole(client: pg.Client, role: string, to: string): Promise<void> {
  const { rows } = await client.query<{ isMember: boolean }>(
    `select pg_has_role(current_user, '${role}', 'member') as "isMember"`,
  )
  if (!rows[0]!.isMember) await client.query(`grant ${role} to ${to}`)
}
