import pg from 'pg'

/** Gardens that were last folded by other rules than these, the shorter first; only the owner of a database sees them all. */
export async function gardensToFold(ownerUrl: string, rules: string): Promise<string[]> {
  const owner = new pg.Client({ connectionString: ownerUrl })
  owner.on('error', () => undefined)
  await owner.connect()
  try {
    const { rows } = await owner.query<{ id: string }>(
      `select garden_id as id from garden_fold where rules <> $1 and up_to > 0 order by up_to`,
      [rules],
    )
    return rows.map(({ id }) => id)
  } finally {
    await owner.end()
  }
}
