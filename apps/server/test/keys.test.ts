import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startHarness } from './harness.ts'
import type { Harness } from './harness.ts'

let harness: Harness
let client: pg.Client
beforeAll(async () => {
  harness = await startHarness()
  client = new pg.Client({ connectionString: harness.ownerUrl })
  await client.connect()
})
afterAll(async () => {
  await client.end()
  await harness.close()
})

/**
 * Tables that are of no garden: people, how they sign in and what they may ask for, and what was done to the
 * database itself. Each stands here by name, so that a new table cannot become one of them unasked.
 */
const OF_NO_GARDEN = [
  'account',
  'account_notice',
  'body_upcast',
  'guess',
  'migration',
  'recovery_code',
  'reset_link',
  'session',
  'throttle',
]
interface Key {
  readonly table: string
  readonly name: string
  readonly columns: readonly string[]
}

const keysOf = async (): Promise<Key[]> => {
  const { rows } = await client.query<Key>(`
    select c.relname as "table", i.relname as name,
      array(select a.attname::text from unnest(x.indkey) with ordinality as k (attnum, n)
        join pg_attribute a on a.attrelid = c.oid and a.attnum = k.attnum order by k.n) as columns
    from pg_index x
    join pg_class c on c.oid = x.indrelid
    join pg_class i on i.oid = x.indexrelid
    join pg_namespace s on s.oid = c.relnamespace
    where s.nspname = 'public' and c.relkind in ('r', 'p') and x.indisunique`)
  return rows
}
const tablesOf = async (): Promise<string[]> => {
  const { rows } = await client.query<{ name: string }>(
    `select c.relname as name from pg_class c join pg_namespace s on s.oid = c.relnamespace
     where s.nspname = 'public' and c.relkind in ('r', 'p') order by 1`,
  )
  return rows.map(({ name }) => name)
}

describe('a garden can live on any node', () => {
  it('since every table is of a garden, or is named here as being of none', async () => {
    const { rows } = await client.query<{ name: string }>(
      `select table_name as name from information_schema.columns
       where table_schema = 'public' and column_name = 'garden_id'`,
    )
    const ofGardens = new Set(rows.map(({ name }) => name))
    expect((await tablesOf()).filter((name) => !ofGardens.has(name))).toEqual(OF_NO_GARDEN)
  })

  it('since every key of a garden-owned table begins with the garden', async () => {
    const keys = (await keysOf()).filter(({ table }) => !OF_NO_GARDEN.includes(table))
    expect(keys.length).toBeGreaterThan(5)
    const others = keys.filter(({ columns }) => columns[0] !== 'garden_id').map(({ name }) => name)
    expect(others).toEqual([])
  })

  it('and since a row of one garden refers to rows of its own garden alone', async () => {
    const { rows } = await client.query<{ name: string; from: string[]; to: string; columns: string[] }>(`
      select k.conname as name, f.relname as to,
        array(select a.attname::text from unnest(k.conkey) with ordinality as u (attnum, n)
          join pg_attribute a on a.attrelid = k.conrelid and a.attnum = u.attnum order by u.n) as columns
      from pg_constraint k
      join pg_class c on c.oid = k.conrelid
      join pg_class f on f.oid = k.confrelid
      join pg_namespace s on s.oid = c.relnamespace
      where k.contype = 'f' and s.nspname = 'public'`)
    const crossing = rows.filter(
      ({ to, columns }) => !OF_NO_GARDEN.includes(to) && columns[0] !== 'garden_id',
    )
    expect(crossing.map(({ name }) => name)).toEqual([])
  })
})
