import type { StoredEntry } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'
import type { PoolClient } from 'pg'

/**
 * Appends what is not there yet, in the order given, and tells the number of every entry, old or new. The garden's row
 * is locked first, so numbers are given out and become visible in one order: a reader of "after N" misses none.
 */
export async function appendEntries(
  client: PoolClient,
  gardenId: string,
  accountId: string,
  entries: readonly JournalEntry[],
): Promise<{ id: string; seq: number }[]> {
  const ids = entries.map((entry) => entry.id)
  await client.query(`select 1 from garden where garden_id = $1 for update`, [gardenId])
  await client.query({
    name: 'append-entries',
    text: `
      with fresh as (
        select distinct on (e.entry_id) e.*
        from jsonb_to_recordset($3::jsonb) as e (
          entry_id uuid, place_id uuid, plant_id uuid, kind text, at text, recorded_at timestamptz, supersedes uuid,
          body jsonb, n integer
        )
        where not exists (select from entry old where old.garden_id = $1 and old.entry_id = e.entry_id)
        order by e.entry_id, e.n
      ), numbered as (
        select fresh.*, row_number() over (order by n) as step from fresh
      ), counted as (
        update garden set journal_seq = journal_seq + (select count(*) from fresh)
        where garden_id = $1 returning journal_seq
      )
      insert into entry
        (garden_id, seq, entry_id, place_id, plant_id, kind, at, recorded_at, written_by, supersedes, body)
      select $1, (select journal_seq from counted) - (select count(*) from fresh) + step, entry_id, place_id, plant_id,
        kind, at, recorded_at, $2, supersedes, body
      from numbered`,
    values: [gardenId, accountId, JSON.stringify(entries.map(toRow))],
  })
  const { rows } = await client.query<{ id: string; seq: number }>(
    `select entry_id as id, seq from entry where garden_id = $1 and entry_id = any ($2::uuid[]) order by seq`,
    [gardenId, ids],
  )
  return rows
}

function toRow(entry: JournalEntry, n: number) {
  return {
    entry_id: entry.id,
    place_id: entry.placeId,
    plant_id: entry.plantId,
    kind: entry.kind,
    at: entry.at,
    recorded_at: entry.recordedAt,
    supersedes: entry.supersedes,
    body: entry.body,
    n,
  }
}

export async function readEntries(
  client: PoolClient,
  gardenId: string,
  after: number,
  limit: number,
): Promise<StoredEntry[]> {
  const { rows } = await client.query<StoredEntry>(
    `select e.seq, e.entry_id as id, e.place_id as "placeId", e.plant_id as "plantId", e.kind, e.at,
       to_char(e.recorded_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "recordedAt",
       e.supersedes, e.body, coalesce(a.name, '') as by
     from entry e left join account a on a.account_id = e.written_by
     where e.garden_id = $1 and e.seq > $2 order by e.seq limit $3`,
    [gardenId, after, limit],
  )
  return rows
}

/** Which of these entries the garden's journal does not hold. */
export async function missingEntries(
  client: PoolClient,
  gardenId: string,
  ids: readonly string[],
): Promise<string[]> {
  const { rows } = await client.query<{ id: string }>(
    `select wanted.id from unnest($2::uuid[]) as wanted (id)
     where not exists (select from entry e where e.garden_id = $1 and e.entry_id = wanted.id)`,
    [gardenId, ids],
  )
  return rows.map((row) => row.id)
}
