import type { KeptFold } from '@klados/core/part-fold'
import { hemisphereAt } from '@klados/core/season'
import type { Hemisphere } from '@klados/core/season'
import type { PoolClient } from 'pg'
import { subjectIn } from '../journal/queries.ts'

/** How far a garden is folded, by which rules, and how far it goes. */
export interface Reach {
  readonly upTo: number
  readonly rules: string
  readonly head: number
}

export async function findReach(client: PoolClient, gardenId: string): Promise<Reach> {
  const { rows } = await client.query<Reach>(
    `select coalesce(f.up_to, 0) as "upTo", coalesce(f.rules, '') as rules,
       coalesce((select max(e.seq) from entry e where e.garden_id = $1), 0) as head
     from (select 1) as one left join garden_fold f on f.garden_id = $1`,
    [gardenId],
  )
  return rows[0]!
}

/** As `findReach`, and nobody else folds this garden until the transaction is over. */
export async function holdReach(client: PoolClient, gardenId: string): Promise<Reach> {
  await client.query(
    `insert into garden_fold (garden_id, up_to, rules) values ($1, 0, '') on conflict do nothing`,
    [gardenId],
  )
  await client.query(`select from garden_fold where garden_id = $1 for update`, [gardenId])
  return findReach(client, gardenId)
}

export async function setReach(
  client: PoolClient,
  gardenId: string,
  { upTo, rules }: Pick<Reach, 'upTo' | 'rules'>,
): Promise<void> {
  await client.query(`update garden_fold set up_to = $2, rules = $3 where garden_id = $1`, [
    gardenId,
    upTo,
    rules,
  ])
}

/** The plant, or the place, that each part with entries after a number is about. */
export async function subjectsAfter(client: PoolClient, gardenId: string, after: number): Promise<string[]> {
  const { rows } = await client.query<{ subject: string }>(
    `select distinct ${subjectIn('e')} as subject from entry e
     where e.garden_id = $1 and e.seq > $2 order by 1`,
    [gardenId, after],
  )
  return rows.map(({ subject }) => subject)
}

export async function findFolds(
  client: PoolClient,
  gardenId: string,
  parts: readonly string[],
): Promise<Map<string, string>> {
  const { rows } = await client.query<{ part: string; fold: string }>(
    `select part, fold from part_fold where garden_id = $1 and part = any ($2)`,
    [gardenId, parts],
  )
  return new Map(rows.map(({ part, fold }) => [part, fold]))
}

export async function keepFolds(
  client: PoolClient,
  gardenId: string,
  folds: readonly KeptFold[],
): Promise<void> {
  await client.query(
    `insert into part_fold (garden_id, part, brief, fold)
     select $1, f.part, f.brief, f.fold from unnest($2::text[], $3::text[], $4::text[]) as f (part, brief, fold)
     on conflict (garden_id, part) do update set brief = excluded.brief, fold = excluded.fold`,
    [gardenId, folds.map(({ part }) => part), folds.map(({ brief }) => brief), folds.map(({ text }) => text)],
  )
}

/** Some folds in the order of their parts, after one. */
export async function readFolds(
  client: PoolClient,
  gardenId: string,
  after: string,
  limit: number,
): Promise<KeptFold[]> {
  const { rows } = await client.query<KeptFold>(
    `select part, brief, fold as text from part_fold where garden_id = $1 and part > $2 order by part limit $3`,
    [gardenId, after, limit],
  )
  return rows
}

/** The kinds of the plants among some ids. */
export async function findKinds(
  client: PoolClient,
  gardenId: string,
  ids: readonly string[],
): Promise<Map<string, string>> {
  const { rows } = await client.query<{ id: string; kindId: string }>(
    `select document_id as id, body ->> 'kindId' as "kindId" from document
     where garden_id = $1 and kind = 'plant' and document_id = any ($2::uuid[])`,
    [gardenId, ids],
  )
  return new Map(rows.map(({ id, kindId }) => [id, kindId]))
}

export async function findHemisphere(client: PoolClient, gardenId: string): Promise<Hemisphere> {
  const { rows } = await client.query<{ latitudeDeg: number }>(
    `select latitude_deg as "latitudeDeg" from garden where garden_id = $1`,
    [gardenId],
  )
  return hemisphereAt(rows[0]?.latitudeDeg)
}

/** The greatest id in a garden's journal: what is written on a device that reads only folds comes after it all the same. */
export async function greatestEntryId(client: PoolClient, gardenId: string): Promise<string | null> {
  const { rows } = await client.query<{ id: string }>(
    `select entry_id as id from entry where garden_id = $1 order by entry_id desc limit 1`,
    [gardenId],
  )
  return rows[0]?.id ?? null
}
