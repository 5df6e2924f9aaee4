import type { StoredEntry } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'
import type { PoolClient } from 'pg'

/**
 * Appends what is not there yet, in the order given, and tells the number of every entry (see the function's
 * migration).
 */
export async function appendEntries(
  client: PoolClient,
  gardenId: string,
  accountId: string,
  entries: readonly JournalEntry[],
): Promise<{ id: string; seq: number }[]> {
  const { rows } = await client.query<{ id: string; seq: number }>({
    name: 'append-entries',
    text: `select id, seq from append_entries($1, $2, $3::jsonb)`,
    values: [gardenId, accountId, JSON.stringify(entries.map(toRow))],
  })
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

const columnsWith = (body: string) =>
  `e.seq, e.entry_id as id, e.place_id as "placeId", e.plant_id as "plantId", e.kind, e.at,
  to_char(e.recorded_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "recordedAt",
  e.supersedes, ${body} as body, coalesce(a.name, '') as by`
const columns = columnsWith('e.body')
const columnsAsText = columnsWith('e.body::text')

export async function readEntries(
  client: PoolClient,
  gardenId: string,
  after: number,
  limit: number,
  only: Only = EVERYTHING,
): Promise<StoredEntry[]> {
  const { rows } = await client.query<StoredEntry>(allOf(columns), [
    gardenId,
    after,
    limit,
    only.kinds,
    only.from,
    only.until,
  ])
  return rows
}

function allOf(wanted: string): string {
  return `select ${wanted} from entry e left join person a on a.account_id = e.written_by
     where e.garden_id = $1 and e.seq > $2 and ${isAmong('e', 4)} order by e.seq limit $3`
}

/** A page of a journal as JSON, ready to be sent: bodies are not read here for that. */
export interface PageText {
  readonly entries: string
  /** The number of the last of them; of none the one asked for. */
  readonly last: number
}
/** A page ends where it has come to so many bytes of bodies, and has one entry at least. */
export const MAX_PAGE_BYTES = 2 * 1024 * 1024

/**
 * A page of what is after a number: of the whole journal, or of some plants and of what was written of no plant at some
 * places. As many entries as are asked for, and no more than fit.
 */
export async function readPage(
  client: PoolClient,
  gardenId: string,
  after: number,
  limit: number,
  { subjects, ...only }: Only & { readonly subjects: readonly string[] | null },
): Promise<PageText> {
  const { rows } = await client.query<Omit<StoredEntry, 'body'> & { body: string }>(
    `with page as materialized (
       ${subjects ? someOf(columnsAsText) : allOf(columnsAsText)}
     ), weighed as (
       select page.*, sum(octet_length(body)) over (order by seq) as bytes, row_number() over (order by seq) as n from page
     )
     select seq, id, "placeId", "plantId", kind, at, "recordedAt", supersedes, body, by from weighed
     where bytes <= ${MAX_PAGE_BYTES} or n = 1 order by seq`,
    [gardenId, after, limit, only.kinds, only.from, only.until, ...(subjects ? [subjects] : [])],
  )
  const texts = rows.map(({ body, ...head }) => `${JSON.stringify(head).slice(0, -1)},"body":${body}}`)
  return { entries: `[${texts.join(',')}]`, last: rows.at(-1)?.seq ?? after }
}

/** Entries of some kinds alone, or of what happened in a time, both days counted in; `null` is no bound. */
export interface Only {
  readonly kinds: readonly string[] | null
  readonly from: string | null
  readonly until: string | null
}
const EVERYTHING: Only = { kinds: null, from: null, until: null }
const isAmong = (table: string, first: number) =>
  `($${first}::text[] is null or ${table}.kind = any ($${first}))
   and ($${first + 1}::text is null or ${table}.at >= $${first + 1})
   and ($${first + 2}::text is null or ${table}.at <= $${first + 2})`

/** The plant, or the place, that an entry is about: as the index has it, and not by coalesce(), see its migration. */
export const subjectIn = (table: string): string =>
  `case when ${table}.plant_id is null then ${table}.place_id else ${table}.plant_id end`

/** The plants that were ever written of at a place, and the place itself. */
export async function findSubjects(client: PoolClient, gardenId: string, placeId: string): Promise<string[]> {
  const { rows } = await client.query<{ subject: string }>(
    `select distinct ${subjectIn('e')} as subject from entry e where e.garden_id = $1 and e.place_id = $2`,
    [gardenId, placeId],
  )
  return rows.map(({ subject }) => subject)
}

/**
 * As `readEntries`, of some plants and of what was written of no plant at some places; without a limit all of them. Each
 * is looked up by itself: asked for together and in order, a planner without statistics goes through the garden.
 */
export async function readEntriesOf(
  client: PoolClient,
  gardenId: string,
  subjects: readonly string[],
  after: number,
  limit: number | null = null,
  only: Only = EVERYTHING,
): Promise<StoredEntry[]> {
  const { rows } = await client.query<StoredEntry>(someOf(columns), [
    gardenId,
    after,
    limit,
    only.kinds,
    only.from,
    only.until,
    subjects,
  ])
  return rows
}

function someOf(wanted: string): string {
  return `select ${wanted} from unnest($7::uuid[]) as s (subject)
     cross join lateral (
       select * from entry x where x.garden_id = $1 and (${subjectIn('x')}) = s.subject and x.seq > $2
       and ${isAmong('x', 4)}
     ) e left join person a on a.account_id = e.written_by
     order by e.seq limit $3`
}

/** The number of the latest entry; 0 in a garden without any. */
export async function lastNumber(client: PoolClient, gardenId: string): Promise<number> {
  const { rows } = await client.query<{ seq: number | null }>(
    `select max(seq) as seq from entry where garden_id = $1`,
    [gardenId],
  )
  return rows[0]?.seq ?? 0
}

/** What those of these entries that the garden has are about, by id. */
export async function findHeads(
  client: PoolClient,
  gardenId: string,
  ids: readonly string[],
): Promise<[string, { placeId: string; plantId: string | null }][]> {
  if (ids.length === 0) return []
  const { rows } = await client.query<{ id: string; placeId: string; plantId: string | null }>(
    `select entry_id as id, place_id as "placeId", plant_id as "plantId" from entry
     where garden_id = $1 and entry_id = any ($2::uuid[])`,
    [gardenId, ids],
  )
  return rows.map(({ id, ...head }) => [id, head])
}
