import type { StoredEntry } from '@klados/contract'
import {
  PART_FOLD_RULES,
  foldPart,
  goOnPart,
  grouped,
  keptFold,
  partOf,
  subjectOf,
  unpacked,
} from '@klados/core/part-fold'
import type { PartFold } from '@klados/core/part-fold'
import type { Hemisphere } from '@klados/core/season'
import type { PoolClient } from 'pg'
import { readEntriesOf } from '../journal/queries.ts'
import {
  findFolds,
  findHemisphere,
  findKinds,
  holdReach,
  keepFolds,
  setReach,
  subjectsAfter,
} from './queries.ts'

/** Plants and places whose entries are in memory at once. */
const AT_ONCE = 40

/**
 * Brings what stands of a garden up to its latest entry, in the caller's transaction: folds go on from where they were
 * where that can be told, and are made from all entries of their part where not, or by other rules.
 */
export async function foldGarden(client: PoolClient, gardenId: string): Promise<void> {
  const { upTo, rules, head } = await holdReach(client, gardenId)
  const from = rules === PART_FOLD_RULES ? upTo : 0
  if (from === head && rules === PART_FOLD_RULES) return
  const subjects = await subjectsAfter(client, gardenId, from)
  const hemisphere = await findHemisphere(client, gardenId)
  for (let n = 0; n < subjects.length; n += AT_ONCE)
    await foldSome(client, gardenId, subjects.slice(n, n + AT_ONCE), { from, head, hemisphere })
  await setReach(client, gardenId, { upTo: head, rules: PART_FOLD_RULES })
}

async function foldSome(
  client: PoolClient,
  gardenId: string,
  subjects: readonly string[],
  { from, head, hemisphere }: { from: number; head: number; hemisphere: Hemisphere },
): Promise<void> {
  // What others write meanwhile is for the next time: one number says how far all parts go.
  const until = (entries: readonly StoredEntry[]) => entries.filter(({ seq }) => seq <= head)
  const news = grouped(until(await readEntriesOf(client, gardenId, subjects, from)), partOf)
  const known = from > 0 ? await findFolds(client, gardenId, [...news.keys()]) : new Map<string, string>()
  const folds: PartFold[] = []
  const anew: string[] = []
  for (const [part, entries] of news) {
    const before = known.get(part)
    const further = before === undefined ? null : goOnPart(unpacked(before) as PartFold, entries)
    if (further) folds.push(further)
    else if (from === 0) folds.push(foldPart(part, entries))
    else anew.push(part)
  }
  if (anew.length > 0) {
    const all = grouped(until(await readEntriesOf(client, gardenId, anew.map(subjectOf), 0)), partOf)
    for (const part of anew) folds.push(foldPart(part, all.get(part)!))
  }
  const kinds = await findKinds(client, gardenId, subjects)
  await keepFolds(
    client,
    gardenId,
    folds.map((fold) => keptFold(fold, { kindId: kinds.get(fold.part) ?? null, hemisphere })),
  )
}
