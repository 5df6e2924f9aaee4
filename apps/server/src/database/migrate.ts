import { runner } from 'node-pg-migrate'
import pg from 'pg'
import { APP_ROLE } from './pool.ts'

/**
 * Brings a database up to this release: the app's role, then every numbered migration not yet applied, in order, in one
 * transaction, one runner at a time (the package takes an advisory lock and refuses migrations out of order).
 */
export async function migrate(ownerUrl: string, migrationsDir: string): Promise<string[]> {
  const client = new pg.Client({ connectionString: ownerUrl })
  await client.connect()
  try {
    await createAppRole(client)
    const applied = await runner({
      dbClient: client,
      dir: migrationsDir,
      direction: 'up',
      migrationsTable: 'migration',
      checkOrder: true,
      log: () => undefined,
    })
    return applied.map((migration) => migration.name)
  } finally {
    await client.end()
  }
}

/** Roles belong to the whole database server: another database of the same server may have made it already. */
async function createAppRole(client: pg.Client): Promise<void> {
  await client.query(`
    do $$ begin
      create role ${APP_ROLE} nologin;
    exception when duplicate_object or unique_violation then null;
    end $$`)
  const { rows } = await client.query<{ is_member: boolean }>(
    `select pg_has_role(current_user, '${APP_ROLE}', 'member') as is_member`,
  )
  if (!rows[0]!.is_member) await client.query(`grant ${APP_ROLE} to current_user`)
}
