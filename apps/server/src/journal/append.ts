import type { EntryAnswer } from '@klados/contract'
import type { JournalEntry } from '@klados/core/journal'
import type { PoolClient } from 'pg'
import { missingIds } from '../database/missing.ts'
import { missingDocuments } from '../documents/queries.ts'
import { judge } from './judge.ts'
import type { EntryHead, ReadEntry } from './judge.ts'
import { appendEntries, findHeads } from './queries.ts'

/** Stores those of the entries that can be, in the order sent, and answers for each in the same order. */
export async function appendEach(
  client: PoolClient,
  into: { readonly gardenId: string; readonly accountId: string },
  read: readonly ReadEntry[],
): Promise<EntryAnswer[]> {
  const readable = read.flatMap((one) => ('entry' in one ? [one.entry] : []))
  const known = await whatIsThere(client, into.gardenId, readable)
  const good: JournalEntry[] = []
  const verdicts = read.map((one) => {
    if (!('entry' in one)) return one.verdict
    const verdict = judge(one.entry, known)
    if (verdict.answer !== 'good') return verdict
    good.push(one.entry)
    // What comes after it in the same request may supersede it.
    known.entries.set(one.entry.id, one.entry)
    return one.entry.id
  })
  const stored = good.length > 0 ? await appendEntries(client, into.gardenId, into.accountId, good) : []
  const seqOf = new Map(stored.map(({ id, seq }) => [id, seq]))
  return verdicts.map((verdict) =>
    typeof verdict === 'string'
      ? { answer: 'taken', seq: seqOf.get(verdict)! }
      : (verdict as Exclude<typeof verdict, { answer: 'good' }>),
  )
}

async function whatIsThere(client: PoolClient, gardenId: string, entries: readonly JournalEntry[]) {
  const without = (named: ReadonlySet<string>, missing: readonly string[]) => {
    const gone = new Set(missing)
    return new Set([...named].filter((id) => !gone.has(id)))
  }
  const there = async (kind: 'place' | 'plant', ids: readonly string[]) => {
    const named = new Set(ids)
    return without(named, await missingDocuments(client, gardenId, kind, [...named]))
  }
  const photos = new Set(entries.flatMap((one) => (one.kind === 'photo.taken' ? [one.body.fileId] : [])))
  return {
    places: await there(
      'place',
      entries.map((entry) => entry.placeId),
    ),
    plants: await there(
      'plant',
      entries.flatMap((entry) => entry.plantId ?? []),
    ),
    photos:
      photos.size === 0 ? photos : without(photos, await missingIds(client, 'file', gardenId, [...photos])),
    entries: new Map<string, EntryHead>(
      await findHeads(
        client,
        gardenId,
        entries.flatMap((entry) => entry.supersedes ?? []),
      ),
    ),
  }
}
