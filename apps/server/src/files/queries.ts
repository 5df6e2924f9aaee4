import type { PoolClient } from 'pg'

export interface StoredFile {
  readonly id: string
  readonly mediaType: string
  readonly widthPx: number
  readonly heightPx: number
  readonly content: Buffer
}
type FileHead = Omit<StoredFile, 'content'>

const CHUNK_BYTES = 256 * 1024
const columns = `f.file_id as id, f.media_type as "mediaType", f.width_px as "widthPx", f.height_px as "heightPx"`

/** False where the id is taken: a photo is written once. */
export async function insertFile(
  client: PoolClient,
  gardenId: string,
  accountId: string,
  file: StoredFile,
): Promise<boolean> {
  const { rowCount } = await client.query(
    `insert into file (garden_id, file_id, media_type, width_px, height_px, bytes, added_by)
     values ($1, $2, $3, $4, $5, $6, $7) on conflict do nothing`,
    [gardenId, file.id, file.mediaType, file.widthPx, file.heightPx, file.content.length, accountId],
  )
  if (rowCount !== 1) return false
  for (let n = 0; n * CHUNK_BYTES < file.content.length; n++) {
    const chunk = file.content.subarray(n * CHUNK_BYTES, (n + 1) * CHUNK_BYTES)
    await client.query(`insert into file_chunk (garden_id, file_id, n, content) values ($1, $2, $3, $4)`, [
      gardenId,
      file.id,
      n,
      chunk,
    ])
  }
  return true
}

export async function findFileHead(
  client: PoolClient,
  gardenId: string,
  fileId: string,
): Promise<FileHead | undefined> {
  const { rows } = await client.query<FileHead>(
    `select ${columns} from file f where f.garden_id = $1 and f.file_id = $2`,
    [gardenId, fileId],
  )
  return rows[0]
}

export async function findFile(
  client: PoolClient,
  gardenId: string,
  fileId: string,
): Promise<StoredFile | undefined> {
  const head = await findFileHead(client, gardenId, fileId)
  if (!head) return undefined
  const { rows } = await client.query<{ content: Buffer }>(
    `select content from file_chunk where garden_id = $1 and file_id = $2 order by n`,
    [gardenId, fileId],
  )
  return { ...head, content: Buffer.concat(rows.map((row) => row.content)) }
}

/** What a file holds, piece by piece in its order. */
export async function* readFile(
  client: PoolClient,
  gardenId: string,
  fileId: string,
): AsyncGenerator<Buffer> {
  for (let n = 0; ; n++) {
    const { rows } = await client.query<{ content: Buffer }>(
      `select content from file_chunk where garden_id = $1 and file_id = $2 and n = $3`,
      [gardenId, fileId, n],
    )
    if (!rows[0]) return
    yield rows[0].content
  }
}

export async function listFileIds(client: PoolClient, gardenId: string): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(
    `select file_id as id from file where garden_id = $1 order by file_id`,
    [gardenId],
  )
  return rows.map((row) => row.id)
}

/** `in-use` while a document that stands or the journal shows it; earlier revisions may lose it. */
export async function deleteFile(
  client: PoolClient,
  gardenId: string,
  fileId: string,
): Promise<'deleted' | 'in-use' | 'not-there'> {
  const used = await client.query(
    `select from document d where d.garden_id = $1 and not d.is_removed and d.body #>> '{photo,fileId}' = $2
     union all
     select from entry e where e.garden_id = $1 and e.kind = 'photo.taken' and e.body ->> 'fileId' = $2`,
    [gardenId, fileId],
  )
  if (used.rowCount! > 0) return 'in-use'
  const { rowCount } = await client.query(`delete from file where garden_id = $1 and file_id = $2`, [
    gardenId,
    fileId,
  ])
  return rowCount === 1 ? 'deleted' : 'not-there'
}
