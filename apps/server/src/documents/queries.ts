import { BODY_VERSIONS } from '@klados/contract/upcasts'
import type { PoolClient } from 'pg'
import { AppError } from '../errors.ts'

export type DocumentKind = 'place' | 'frame' | 'plant' | 'stores'

export interface StoredDocument {
  readonly id: string
  readonly version: number
  readonly isRemoved: boolean
  readonly note: string
  readonly savedAt: string
  readonly savedBy: string
  readonly bodyVersion: number
  readonly body: unknown
}

export interface Save {
  readonly saveId: string
  readonly basedOn: number
  readonly isRemoved: boolean
  readonly note: string
  readonly body: unknown
}

// All that is stored was brought up when this release was started.
const bodyVersion = `case d.kind when 'place' then ${BODY_VERSIONS.places} when 'frame' then ${BODY_VERSIONS.frames}
  when 'plant' then ${BODY_VERSIONS.plants} else ${BODY_VERSIONS.stores} end`
const columns = `
  d.document_id as id, d.version, d.is_removed as "isRemoved", d.note,
  to_char(d.saved_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "savedAt",
  coalesce(a.name, '') as "savedBy", ${bodyVersion} as "bodyVersion", d.body`

/** A page of what there is of a kind, in the order of the ids: so many after one. */
export interface DocumentPage {
  readonly after?: string | undefined
  readonly limit?: number | undefined
}

/** Documents of a kind, removed ones too; without a page all of them. */
export async function listDocuments(
  client: PoolClient,
  gardenId: string,
  kind: DocumentKind,
  { after, limit }: DocumentPage = {},
): Promise<StoredDocument[]> {
  const { rows } = await client.query<StoredDocument>(
    `select ${columns} from document d left join person a on a.account_id = d.saved_by
     where d.garden_id = $1 and d.kind = $2 and ($3::uuid is null or d.document_id > $3)
     order by d.document_id limit $4`,
    [gardenId, kind, after ?? null, limit ?? null],
  )
  return rows
}

/** A save counts from when it began, and others that began sooner may end later. */
const LONGEST_SAVE = '1 minute'

/** Documents of a kind that were saved since a time, and maybe some that were saved a little before. */
export async function listChanged(
  client: PoolClient,
  gardenId: string,
  kind: DocumentKind,
  since: string,
): Promise<StoredDocument[]> {
  const { rows } = await client.query<StoredDocument>(
    `select ${columns} from document d left join person a on a.account_id = d.saved_by
     where d.garden_id = $1 and d.kind = $2 and d.saved_at >= $3::timestamptz - $4::interval
     order by d.document_id`,
    [gardenId, kind, since, LONGEST_SAVE],
  )
  return rows
}

/** `checkOf` of the contract, of all documents of a kind. */
export async function findCheck(client: PoolClient, gardenId: string, kind: DocumentKind): Promise<number> {
  const { rows } = await client.query<{ sum: number }>(
    `select coalesce(sum(version * ('x' || right(document_id::text, 6))::bit(24)::bigint), 0)::float8 as sum
     from document where garden_id = $1 and kind = $2`,
    [gardenId, kind],
  )
  return rows[0]!.sum
}

/** How many saves the documents of a garden have come to, all together: whoever has read fewer has not read all. */
export async function countSaves(client: PoolClient, gardenId: string): Promise<number> {
  const { rows } = await client.query<{ saves: number }>(
    `select coalesce(sum(version), 0)::integer as saves from document where garden_id = $1`,
    [gardenId],
  )
  return rows[0]!.saves
}

export async function findDocument(
  client: PoolClient,
  gardenId: string,
  kind: DocumentKind,
  id: string,
): Promise<StoredDocument | undefined> {
  const { rows } = await client.query<StoredDocument>(
    `select ${columns} from document d left join person a on a.account_id = d.saved_by
     where d.garden_id = $1 and d.kind = $2 and d.document_id = $3`,
    [gardenId, kind, id],
  )
  return rows[0]
}

export async function listRevisions(
  client: PoolClient,
  gardenId: string,
  kind: DocumentKind,
  id: string,
): Promise<StoredDocument[]> {
  const { rows } = await client.query<StoredDocument>(
    `select ${columns} from document_revision d left join person a on a.account_id = d.saved_by
     where d.garden_id = $1 and d.kind = $2 and d.document_id = $3 order by d.version desc`,
    [gardenId, kind, id],
  )
  return rows
}

/**
 * What this very save made of this document, where it is stored already. Throws where the save's id belongs
 * to another document: it is neither stored again nor answered as if it were.
 */
export async function findSave(
  client: PoolClient,
  key: { gardenId: string; kind: DocumentKind; id: string },
  saveId: string,
): Promise<StoredDocument | undefined> {
  const { rows } = await client.query<StoredDocument & { kind: DocumentKind }>(
    `select ${columns}, d.kind from document_revision d left join person a on a.account_id = d.saved_by
     where d.garden_id = $1 and d.save_id = $2`,
    [key.gardenId, saveId],
  )
  const [found] = rows
  if (found && (found.id !== key.id || found.kind !== key.kind))
    throw new AppError('document/not-found', `This save belongs to another document than this ${key.kind}`)
  return found
}

/** Writes the next version where the stored one is still the one it is based on; false when it is not. */
export async function writeDocument(
  client: PoolClient,
  key: { gardenId: string; kind: DocumentKind; id: string; accountId: string },
  save: Save,
): Promise<boolean> {
  const values = [
    key.gardenId,
    key.kind,
    key.id,
    save.basedOn,
    save.isRemoved,
    save.note,
    JSON.stringify(save.body),
    key.accountId,
  ]
  const { rowCount } = await client.query(
    save.basedOn === 0
      ? `insert into document (garden_id, kind, document_id, version, is_removed, note, body, saved_by)
         values ($1, $2, $3, $4::integer + 1, $5, $6, $7, $8) on conflict do nothing`
      : `update document set version = version + 1, is_removed = $5, note = $6, body = $7, saved_by = $8, saved_at = now()
         where garden_id = $1 and kind = $2 and document_id = $3 and version = $4`,
    values,
  )
  if (rowCount !== 1) return false
  await client.query(
    `insert into document_revision (garden_id, kind, document_id, version, save_id, is_removed, note, body, saved_by)
     values ($1, $2, $3, $4::integer + 1, $9, $5, $6, $7, $8)`,
    [...values, save.saveId],
  )
  return true
}

/** Which of these places and plants the garden does not have. */
export async function missingDocuments(
  client: PoolClient,
  gardenId: string,
  kind: DocumentKind,
  ids: readonly string[],
): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(
    `select wanted.id from unnest($3::uuid[]) as wanted (id)
     where not exists (
       select from document d where d.garden_id = $1 and d.kind = $2 and d.document_id = wanted.id
     )`,
    [gardenId, kind, ids],
  )
  return rows.map((row) => row.id)
}
