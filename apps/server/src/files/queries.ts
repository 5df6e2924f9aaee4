import type { PoolClient } from 'pg'

export interface StoredFile {
  readonly id: string
  readonly mediaType: string
  readonly widthPx: number
  readonly heightPx: number
  readonly content: Buffer
}

const columns = `f.file_id as id, f.media_type as "mediaType", f.width_px as "widthPx", f.height_px as "heightPx", f.content`

export async function insertFile(
  client: PoolClient,
  gardenId: string,
  accountId: string,
  file: StoredFile,
): Promise<boolean> {
  const { rowCount } = await client.query(
    `insert into file (garden_id, file_id, media_type, width_px, height_px, content, added_by)
     values ($1, $2, $3, $4, $5, $6, $7) on conflict do nothing`,
    [gardenId, file.id, file.mediaType, file.widthPx, file.heightPx, file.content, accountId],
  )
  return rowCount === 1
}

export async function findFile(
  client: PoolClient,
  gardenId: string,
  fileId: string,
): Promise<StoredFile | undefined> {
  const { rows } = await client.query<StoredFile>(
    `select ${columns} from file f where f.garden_id = $1 and f.file_id = $2`,
    [gardenId, fileId],
  )
  return rows[0]
}

export async function listFiles(client: PoolClient, gardenId: string): Promise<StoredFile[]> {
  const { rows } = await client.query<StoredFile>(
    `select ${columns} from file f where f.garden_id = $1 order by f.file_id`,
    [gardenId],
  )
  return rows
}
