import { upcastBody, upcastIds } from '@klados/contract/upcasts'
import type { UpcastArea } from '@klados/contract/upcasts'
import type pg from 'pg'

const areas: Readonly<Record<string, UpcastArea>> = {
  place: 'places',
  frame: 'frames',
  plant: 'plants',
  stores: 'stores',
}
/** Bodies that are held at a time. */
const BATCH = 500

/**
 * Brings every stored body to the shape that this release reads, revisions too, by the same steps as files,
 * drafts and waiting saves. Which steps a database has had is recorded, so that its documents are gone
 * through once. One transaction: a start that dies in the middle changes nothing.
 */
export async function upcastDocuments(client: pg.Client): Promise<void> {
  await client.query('begin')
  try {
    await client.query('lock table body_upcast in exclusive mode')
    for (const [kind, area] of Object.entries(areas)) {
      const { rows } = await client.query<{ id: string }>(
        `select upcast as id from body_upcast where kind = $1`,
        [kind],
      )
      const had = new Set(rows.map((row) => row.id))
      const missing = upcastIds(area).filter((id) => !had.has(id))
      if (missing.length === 0) continue
      for (const table of ['document', 'document_revision'] as const)
        await upcastTable(client, table, kind, area)
      await client.query(`insert into body_upcast (kind, upcast) select $1, unnest($2::text[])`, [
        kind,
        missing,
      ])
    }
    await client.query('commit')
  } catch (error) {
    await client.query('rollback').catch(() => undefined)
    throw error
  }
}

interface Row {
  readonly gardenId: string
  readonly id: string
  readonly version: number
  readonly body: unknown
}

async function upcastTable(
  client: pg.Client,
  table: 'document' | 'document_revision',
  kind: string,
  area: UpcastArea,
): Promise<void> {
  const none = '00000000-0000-0000-0000-000000000000'
  let last: Omit<Row, 'body'> = { gardenId: none, id: none, version: 0 }
  for (;;) {
    const { rows } = await client.query<Row>(
      `select garden_id as "gardenId", document_id as id, version, body from ${table}
       where kind = $1 and (garden_id, document_id, version) > ($2, $3, $4)
       order by garden_id, document_id, version limit ${BATCH}`,
      [kind, last.gardenId, last.id, last.version],
    )
    for (const { gardenId, id, version, body } of rows) {
      const up = upcastBody(area, body)
      if (JSON.stringify(up) === JSON.stringify(body)) continue
      await client.query(
        `update ${table} set body = $5 where garden_id = $1 and kind = $2 and document_id = $3 and version = $4`,
        [gardenId, kind, id, version, JSON.stringify(up)],
      )
    }
    const end = rows.at(-1)
    if (!end) return
    last = end
  }
}
