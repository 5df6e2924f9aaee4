import type { PoolClient } from 'pg'

/** Tables whose rows are named by an id made elsewhere, with the column that holds it. */
const idColumn = { entry: 'entry_id', file: 'file_id' } as const

/** Which of these ids the garden has no row for. */
export async function missingIds(
  client: PoolClient,
  table: keyof typeof idColumn,
  gardenId: string,
  ids: readonly string[],
): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(
    `select wanted.id from unnest($2::uuid[]) as wanted (id)
     where not exists (select from ${table} t where t.garden_id = $1 and t.${idColumn[table]} = wanted.id)`,
    [gardenId, ids],
  )
  return rows.map((row) => row.id)
}
