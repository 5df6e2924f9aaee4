import type { Pool, PoolClient } from 'pg'

/** After so long nobody goes on with a photo that stopped half-way. */
const EXPIRE_HOURS = 72
/** Photos of one account that may lie half-sent in a garden; of more the oldest has to begin anew. */
const MOST_HALF_SENT = 20

/** How much of a photo is here, from its beginning on. */
export async function sentSoFar(client: PoolClient, gardenId: string, fileId: string): Promise<number> {
  const { rows } = await client.query<{ bytes: number }>(
    `select coalesce(sum(octet_length(content)), 0) as bytes from file_piece where garden_id = $1 and file_id = $2`,
    [gardenId, fileId],
  )
  return rows[0]!.bytes
}

/**
 * Puts a piece to the others where it follows on them, and answers how much there is now. Of a photo that has become
 * another under the same id what came before is dropped.
 */
export async function addPiece(
  client: PoolClient,
  gardenId: string,
  piece: { fileId: string; from: number; content: Buffer; totalBytes: number; accountId: string },
): Promise<number> {
  const { fileId, from, content, totalBytes, accountId } = piece
  await client.query(`delete from file_piece where garden_id = $1 and file_id = $2 and total_bytes <> $3`, [
    gardenId,
    fileId,
    totalBytes,
  ])
  const upTo = await sentSoFar(client, gardenId, fileId)
  if (from !== upTo || content.length === 0) return upTo
  if (from === 0) await dropOldest(client, gardenId, accountId)
  // Two windows that send the same piece at once have sent it once.
  await client.query(
    `insert into file_piece (garden_id, file_id, from_byte, content, total_bytes, sent_by)
     values ($1, $2, $3, $4, $5, $6) on conflict do nothing`,
    [gardenId, fileId, from, content, totalBytes, accountId],
  )
  return sentSoFar(client, gardenId, fileId)
}

async function dropOldest(client: PoolClient, gardenId: string, accountId: string): Promise<void> {
  await client.query(
    `delete from file_piece where garden_id = $1 and file_id in (
       select file_id from file_piece where garden_id = $1 and sent_by = $2
       group by file_id order by max(sent_at) desc offset ${MOST_HALF_SENT - 1}
     )`,
    [gardenId, accountId],
  )
}

export async function putTogether(client: PoolClient, gardenId: string, fileId: string): Promise<Buffer> {
  const { rows } = await client.query<{ content: Buffer }>(
    `select content from file_piece where garden_id = $1 and file_id = $2 order by from_byte`,
    [gardenId, fileId],
  )
  return Buffer.concat(rows.map(({ content }) => content))
}

export async function dropPieces(client: PoolClient, gardenId: string, fileId: string): Promise<void> {
  await client.query(`delete from file_piece where garden_id = $1 and file_id = $2`, [gardenId, fileId])
}

/** In whichever garden. */
export async function expirePieces(pool: Pool): Promise<void> {
  await pool.query(`select expire_pieces($1)`, [EXPIRE_HOURS])
}
