import { grouped } from '@klados/core/part-fold'
import type { KeptFold } from '@klados/core/part-fold'

/** So many shelves hold the folds of a garden, however many there are. */
const SHELVES = 64
function shelfOf({ part }: KeptFold): string {
  let hash = 0
  for (let i = 0; i < part.length; i++) hash = (hash * 31 + part.charCodeAt(i)) | 0
  return String(Math.abs(hash) % SHELVES)
}

/** Folds by the shelf that each lies on. */
export const byShelf = (folds: readonly KeptFold[]): ReadonlyMap<string, readonly KeptFold[]> =>
  grouped(folds, shelfOf)

/** What a shelf holds once some of its folds are others. */
export function withFolds(before: readonly KeptFold[], more: readonly KeptFold[]): readonly KeptFold[] {
  const anew = new Set(more.map(({ part }) => part))
  return [...before.filter(({ part }) => !anew.has(part)), ...more]
}
