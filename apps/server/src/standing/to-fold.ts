import { PART_FOLD_RULES } from '@klados/core/part-fold'
import pg from 'pg'
import { foldedOtherwise } from './queries.ts'

/** Gardens of a database that were last folded by another release's rules. */
export async function gardensToFold(ownerUrl: string): Promise<string[]> {
  const owner = new pg.Client({ connectionString: ownerUrl })
  owner.on('error', () => undefined)
  await owner.connect()
  try {
    return await foldedOtherwise(owner, PART_FOLD_RULES)
  } finally {
    await owner.end()
  }
}
