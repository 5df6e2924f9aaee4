import type { StoredEntry } from '@klados/contract'
import type { KeptFold } from '@klados/core/part-fold'
import type { DBSchema, IDBPDatabase } from 'idb'
import { plantKey } from '../parts.ts'
import type { Reach } from './reach.ts'

// What the copy on this device is made of, and how its parts are found.

/** An answer of the server as it was last heard, by what was asked. */
interface Answer {
  readonly gardenId: string | null
  readonly data: unknown
  /** How many upcasts there were when it was heard. */
  readonly upcasts?: number
}

/** Entries of one part at one place that came together: written each by itself, a long journal takes ten times as long. */
interface KeptEntries {
  readonly accountId: string
  readonly gardenId: string
  readonly part: string
  readonly placeId: string
  readonly last: number
  readonly entries: readonly StoredEntry[]
}

export type InGarden = [accountId: string, gardenId: string]
export type OfGarden = [accountId: string, gardenId: string, of: string]

export interface Copied extends DBSchema {
  /** By account and path. */
  answers: { key: [accountId: string, path: string]; value: Answer }
  /** By account, garden, part and the number of the first of them. */
  entries: {
    key: [accountId: string, gardenId: string, part: string, first: number]
    value: KeptEntries
    indexes: { place: OfGarden; last: [accountId: string, gardenId: string, last: number] }
  }
  /** By account, garden and file: what a file holds never changes. */
  /** Photos of places, all of them. */
  photos: { key: OfGarden; value: Blob }
  /** Photos of the journal, those that were seen or taken here last. */
  seen: { key: OfGarden; value: Blob }
  /** Which entries of a garden are here. */
  reach: { key: InGarden; value: Reach }
  /** What each part of a garden's journal came to, by the shelf: one by one they take four times as long to read. */
  folds: { key: OfGarden; value: readonly KeptFold[] }
  /** How far all parts of a garden are folded, and by which rules. */
  folded: { key: InGarden; value: { readonly upTo: number; readonly rules: string } }
}

/** Greater than any key of a string or a number in its place. */
const LAST: readonly never[] = []

export const ofGarden = (accountId: string, gardenId: string) =>
  IDBKeyRange.bound([accountId, gardenId], [accountId, gardenId, LAST])
export const ofAccount = (accountId: string) => IDBKeyRange.bound([accountId], [accountId, LAST])
export const ofPart = (accountId: string, gardenId: string, part: string) =>
  IDBKeyRange.bound([accountId, gardenId, part], [accountId, gardenId, part, LAST])
export const sinceNumber = (accountId: string, gardenId: string, seq: number) =>
  IDBKeyRange.bound([accountId, gardenId, seq], [accountId, gardenId, LAST], true)
export const inOrder = (kept: readonly KeptEntries[]): StoredEntry[] =>
  kept.flatMap(({ entries }) => entries).sort((a, b) => a.seq - b.seq)

/** Entries as they are kept: those of one part and place together. */
export function piecesOf(
  accountId: string,
  gardenId: string,
  entries: readonly StoredEntry[],
): KeptEntries[] {
  const pieces = new Map<string, StoredEntry[]>()
  for (const entry of entries) {
    const key = `${entry.placeId} ${plantKey(entry)}`
    const piece = pieces.get(key)
    if (piece) piece.push(entry)
    else pieces.set(key, [entry])
  }
  return [...pieces.values()].map((some) => ({
    accountId,
    gardenId,
    part: plantKey(some[0]!),
    placeId: some[0]!.placeId,
    last: some.at(-1)!.seq,
    entries: some,
  }))
}
export const keyOf = ({ accountId, gardenId, part, entries }: KeptEntries): Copied['entries']['key'] => [
  accountId,
  gardenId,
  part,
  entries[0]!.seq,
]

/** Every part that a garden's journal has, each found by one step. */
export async function partsOf(
  db: IDBPDatabase<Copied>,
  accountId: string,
  gardenId: string,
): Promise<string[]> {
  const parts: string[] = []
  let cursor = await db.transaction('entries').store.openKeyCursor(ofGarden(accountId, gardenId))
  while (cursor) {
    const [, , part] = cursor.key
    parts.push(part)
    cursor = await cursor.continue([accountId, gardenId, part, LAST as unknown as number])
  }
  return parts
}

export async function partsAfter(
  db: IDBPDatabase<Copied>,
  accountId: string,
  gardenId: string,
  seq: number,
): Promise<string[]> {
  const pieces = await db.getAllFromIndex('entries', 'last', sinceNumber(accountId, gardenId, seq))
  return [...new Set(pieces.map((one) => one.part))]
}
