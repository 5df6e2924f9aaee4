import type { StoredEntry } from '@klados/contract'
import { UPCASTS } from '@klados/contract/upcasts'
import type { DBSchema } from 'idb'
import { keptDatabase } from '../kept-database.ts'
import { plantKey } from '../parts.ts'
import { FOLD_RULES } from './fold-rules.ts'
import { broughtUp } from './older-answers.ts'
import { byShelf, withFolds } from './shelves.ts'
import type { KeptFold } from '@klados/core/part-fold'

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

/**
 * The entries after `base` up to `last`, and of those up to the base the ones up to `before`: a garden that was begun from
 * what stands gets its history afterwards. With the base at 0 all of them are here.
 */
interface Reach {
  readonly base: number
  readonly last: number
  readonly before: number
}
const NOTHING: Reach = { base: 0, last: 0, before: 0 }
const hasAll = ({ base, last }: Reach, upTo: number) => base === 0 && last >= upTo

const NOTHING_KEPT: KeptJournal = {
  last: 0,
  isWhole: true,
  foldedTo: 0,
  folds: [],
  entries: [],
  isStale: false,
}
/** A garden of some length that was folded before, and otherwise. */
const isStaleAt = (last: number, folded: Copied['folded']['value'] | undefined, small: number): boolean =>
  last > small && folded !== undefined && folded.rules !== FOLD_RULES

type InGarden = [accountId: string, gardenId: string]
type OfGarden = [accountId: string, gardenId: string, of: string]

interface Copied extends DBSchema {
  /** By account and path. */
  answers: { key: [accountId: string, path: string]; value: Answer }
  /** By account, garden, part and the number of the first of them. */
  entries: {
    key: [accountId: string, gardenId: string, part: string, first: number]
    value: KeptEntries
    indexes: { place: OfGarden; last: [accountId: string, gardenId: string, last: number] }
  }
  /** By account, garden and file: what a file holds never changes. */
  photos: { key: OfGarden; value: Blob }
  /** Which entries of a garden are here. */
  reach: { key: InGarden; value: Reach }
  /** What each part of a garden's journal came to, by the shelf: one by one they take four times as long to read. */
  folds: { key: OfGarden; value: readonly KeptFold[] }
  /** How far all parts of a garden are folded, and by which rules. */
  folded: { key: InGarden; value: { readonly upTo: number; readonly rules: string } }
}

/** A garden's journal as it lies here. */
export interface KeptJournal {
  /** The number of the latest entry that is counted in, as it is or in the folds. */
  readonly last: number
  /** Whether everything before it is here too, and not only what it came to. */
  readonly isWhole: boolean
  /** How far the folds go; 0 where there are none, and then the entries are all that there are. */
  readonly foldedTo: number
  readonly folds: readonly KeptFold[]
  readonly entries: readonly StoredEntry[]
  /** All of it is here, and folded by the rules of another release: nothing can be told before it is folded anew. */
  readonly isStale: boolean
}

/** Folds that have changed, and how far all of them go now. */
export interface FoldedUp {
  readonly upTo: number
  readonly folds: readonly KeptFold[]
}

/** The entries of a place, and all entries of each plant that was ever written of there. */
export interface PlaceHistory {
  readonly entries: readonly StoredEntry[]
  readonly parts: ReadonlyMap<string, readonly StoredEntry[]>
}

/** What this device keeps of what its people have seen, so that it opens without the server and at once with it. */
export interface CopyStore {
  readonly answers: (accountId: string, paths: readonly string[]) => Promise<readonly unknown[]>
  readonly keepAnswer: (
    accountId: string,
    path: string,
    gardenId: string | null,
    data: unknown,
  ) => Promise<void>
  /**
   * The journal as far as it is here. Of at most `small` entries, and where nothing is folded yet, all of them; else
   * the folds and what came after.
   */
  readonly journal: (accountId: string, gardenId: string, small: number) => Promise<KeptJournal>
  /** Begins a garden with what the server has folded; where something of it is here already that stays. */
  readonly begin: (accountId: string, gardenId: string, folded: FoldedUp) => Promise<void>
  /** Entries that follow on `after`, the latest or the history; others are not kept, so that there are no gaps. */
  readonly keepEntries: (
    accountId: string,
    gardenId: string,
    after: number,
    entries: readonly StoredEntry[],
  ) => Promise<void>
  /** From where to where the history is still to come; `null` where all of it is here. */
  readonly gap: (
    accountId: string,
    gardenId: string,
  ) => Promise<{ readonly after: number; readonly upTo: number } | null>
  /** The number of the latest entry of a garden that is stale; `null` where none is. */
  readonly stale: (accountId: string, gardenId: string) => Promise<number | null>
  /** `null` where not all that was written up to a number is here, as of parts. */
  readonly place: (
    accountId: string,
    gardenId: string,
    placeId: string,
    upTo: number,
  ) => Promise<PlaceHistory | null>
  readonly parts: (
    accountId: string,
    gardenId: string,
    parts: readonly string[],
    upTo: number,
  ) => Promise<ReadonlyMap<string, readonly StoredEntry[]> | null>
  /**
   * Folds the parts that have gained entries; `fold` is given in, so that only whoever folds loads what folds. `null`
   * while the history is still to come.
   */
  readonly foldUp: (
    accountId: string,
    gardenId: string,
    fold: (part: string, entries: readonly StoredEntry[]) => KeptFold,
  ) => Promise<FoldedUp | null>
  readonly photo: (accountId: string, gardenId: string, fileId: string) => Promise<Blob | undefined>
  readonly keepPhoto: (accountId: string, gardenId: string, fileId: string, content: Blob) => Promise<void>
  readonly photoIds: (accountId: string, gardenId: string) => Promise<readonly string[]>
  readonly dropPhotos: (accountId: string, gardenId: string, fileIds: readonly string[]) => Promise<void>
  readonly dropGarden: (accountId: string, gardenId: string) => Promise<void>
  /** All that was kept for one account, or for all of them. */
  readonly dropAccount: (accountId: string | null) => Promise<void>
}

const DATABASE = 'klados-copy'
/** The copy of an earlier release is made anew: it is only a copy. */
const VERSION = 6
/** Greater than any key of a string or a number in its place. */
const LAST: readonly never[] = []
/** Parts that are folded between two writes. */
const AT_ONCE = 100
const STORES = ['answers', 'entries', 'reach', 'folds', 'folded', 'photos'] as const
/** A part that lies in more pieces is put together when it is folded. */
const MANY_PIECES = 8

const ofGarden = (accountId: string, gardenId: string) =>
  IDBKeyRange.bound([accountId, gardenId], [accountId, gardenId, LAST])
const ofAccount = (accountId: string) => IDBKeyRange.bound([accountId], [accountId, LAST])
const ofPart = (accountId: string, gardenId: string, part: string) =>
  IDBKeyRange.bound([accountId, gardenId, part], [accountId, gardenId, part, LAST])
const after = (accountId: string, gardenId: string, seq: number) =>
  IDBKeyRange.bound([accountId, gardenId, seq], [accountId, gardenId, LAST], true)
const inOrder = (kept: readonly KeptEntries[]): StoredEntry[] =>
  kept.flatMap(({ entries }) => entries).sort((a, b) => a.seq - b.seq)

/** Entries as they are kept: those of one part and place together. */
function piecesOf(accountId: string, gardenId: string, entries: readonly StoredEntry[]): KeptEntries[] {
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
const keyOf = ({ accountId, gardenId, part, entries }: KeptEntries): Copied['entries']['key'] => [
  accountId,
  gardenId,
  part,
  entries[0]!.seq,
]

export function createCopyStore(name = DATABASE): CopyStore {
  const database = keptDatabase<Copied>(name, VERSION, (db) => {
    for (const store of [...db.objectStoreNames]) db.deleteObjectStore(store)
    db.createObjectStore('answers')
    db.createObjectStore('folds')
    db.createObjectStore('folded')
    db.createObjectStore('photos')
    const entries = db.createObjectStore('entries')
    entries.createIndex('place', ['accountId', 'gardenId', 'placeId'])
    entries.createIndex('last', ['accountId', 'gardenId', 'last'])
    db.createObjectStore('reach')
  })
  const reachOf = async (accountId: string, gardenId: string) =>
    (await (await database()).get('reach', [accountId, gardenId])) ?? NOTHING
  const part = async (accountId: string, gardenId: string, key: string) =>
    inOrder(await (await database()).getAll('entries', ofPart(accountId, gardenId, key)))
  return {
    gap: async (accountId, gardenId) => {
      const { base, before } = await reachOf(accountId, gardenId)
      return base === 0 ? null : { after: before, upTo: base }
    },
    stale: async (accountId, gardenId) => {
      const { base, last } = await reachOf(accountId, gardenId)
      const folded = await (await database()).get('folded', [accountId, gardenId])
      return base === 0 && isStaleAt(last, folded, 0) ? last : null
    },
    parts: async (accountId, gardenId, keys, upTo) => {
      if (!hasAll(await reachOf(accountId, gardenId), upTo)) return null
      const lists = await Promise.all(keys.map((key) => part(accountId, gardenId, key)))
      return new Map(keys.map((key, i) => [key, lists[i]!]))
    },
    answers: async (accountId, paths) => {
      const store = (await database()).transaction('answers').store
      const found = await Promise.all(paths.map((path) => store.get([accountId, path])))
      return found.map((answer, i) =>
        answer?.upcasts === UPCASTS ? answer.data : broughtUp(paths[i]!, answer?.data),
      )
    },
    keepAnswer: async (accountId, path, gardenId, data) => {
      await (await database()).put('answers', { gardenId, data, upcasts: UPCASTS }, [accountId, path])
    },
    journal: async (accountId, gardenId, small) => {
      const db = await database()
      const [{ last, base }, folded] = [
        await reachOf(accountId, gardenId),
        await db.get('folded', [accountId, gardenId]),
      ]
      const isOurs = folded?.rules === FOLD_RULES
      const isWhole = base === 0
      // What stands by other rules, and not all of what it came from: as good as nothing.
      if (!isWhole && !isOurs) return NOTHING_KEPT
      if (isStaleAt(last, folded, small)) return { ...NOTHING_KEPT, isStale: true }
      // Numbers of a garden have no gaps: the last one is how many there are.
      const foldedTo = isOurs && (last > small || !isWhole) ? folded.upTo : 0
      const [folds, entries] = await Promise.all([
        foldedTo > 0 ? db.getAll('folds', ofGarden(accountId, gardenId)) : [],
        db.getAllFromIndex('entries', 'last', after(accountId, gardenId, foldedTo)),
      ])
      const since = inOrder(entries).filter(({ seq }) => seq > foldedTo)
      return { last, isWhole, foldedTo, folds: folds.flat(), entries: since, isStale: false }
    },
    keepEntries: async (accountId, gardenId, from, entries) => {
      const transaction = (await database()).transaction(['entries', 'reach'], 'readwrite')
      const [store, reach] = [transaction.objectStore('entries'), transaction.objectStore('reach')]
      const here = (await reach.get([accountId, gardenId])) ?? NOTHING
      const fitting = whatFits(here, from, entries)
      if (fitting) {
        for (const piece of piecesOf(accountId, gardenId, fitting.entries))
          void store.put(piece, keyOf(piece))
        void reach.put(fitting.reach, [accountId, gardenId])
      }
      await transaction.done
    },
    place: async (accountId, gardenId, placeId, upTo) => {
      if (!hasAll(await reachOf(accountId, gardenId), upTo)) return null
      const db = await database()
      const kept = await db.getAllFromIndex('entries', 'place', [accountId, gardenId, placeId])
      // A plant that stood elsewhere before has entries there too.
      const keys = [...new Set(kept.map((one) => one.part))]
      const lists = await Promise.all(keys.map((key) => part(accountId, gardenId, key)))
      return { entries: inOrder(kept), parts: new Map(keys.map((key, i) => [key, lists[i]!])) }
    },
    begin: async (accountId, gardenId, { upTo, folds }) => {
      const key: InGarden = [accountId, gardenId]
      const transaction = (await database()).transaction(['entries', 'folds', 'folded', 'reach'], 'readwrite')
      const [reach, folded] = [transaction.objectStore('reach'), transaction.objectStore('folded')]
      const here = (await reach.get(key)) ?? NOTHING
      const isOurs = (await folded.get(key))?.rules === FOLD_RULES
      if (here.last === 0 || (here.base > 0 && !isOurs)) {
        void transaction.objectStore('entries').delete(ofGarden(accountId, gardenId))
        void transaction.objectStore('folds').delete(ofGarden(accountId, gardenId))
        for (const [shelf, some] of byShelf(folds))
          void transaction.objectStore('folds').put(some, [accountId, gardenId, shelf])
        void folded.put({ upTo, rules: FOLD_RULES }, key)
        void reach.put({ base: upTo, last: upTo, before: 0 }, key)
      }
      await transaction.done
    },
    foldUp: async (accountId, gardenId, fold) => {
      const db = await database()
      const [{ base, last: upTo }, folded] = [
        await reachOf(accountId, gardenId),
        await db.get('folded', [accountId, gardenId]),
      ]
      if (base > 0) return null
      const from = folded?.rules === FOLD_RULES ? folded.upTo : 0
      const changed =
        from === 0 ? await partsOf(db, accountId, gardenId) : await partsAfter(db, accountId, gardenId, from)
      const folds: KeptFold[] = []
      for (let n = 0; n < changed.length; n += AT_ONCE) {
        const keys = changed.slice(n, n + AT_ONCE)
        const lists = await Promise.all(
          keys.map((key) => db.getAll('entries', ofPart(accountId, gardenId, key))),
        )
        // What comes while this goes on is for the next time: one number says how far all of them go.
        const made = keys.map((key, k) =>
          fold(
            key,
            inOrder(lists[k]!).filter(({ seq }) => seq <= upTo),
          ),
        )
        const transaction = db.transaction(['folds', 'entries', 'reach'], 'readwrite')
        if ((await transaction.objectStore('reach').get([accountId, gardenId])) === undefined) break
        const [into, entries] = [transaction.objectStore('folds'), transaction.objectStore('entries')]
        for (const [shelf, some] of byShelf(made)) {
          const key: OfGarden = [accountId, gardenId, shelf]
          void into.put(withFolds((await into.get(key)) ?? [], some), key)
        }
        for (const pieces of lists) {
          if (pieces.length < MANY_PIECES) continue
          for (const piece of pieces) void entries.delete(keyOf(piece))
          for (const piece of piecesOf(accountId, gardenId, inOrder(pieces)))
            void entries.put(piece, keyOf(piece))
        }
        await transaction.done
        folds.push(...made)
      }
      await db.put('folded', { upTo, rules: FOLD_RULES }, [accountId, gardenId])
      return { upTo, folds }
    },
    photo: async (accountId, gardenId, fileId) =>
      (await database()).get('photos', [accountId, gardenId, fileId]),
    keepPhoto: async (accountId, gardenId, fileId, content) => {
      await (await database()).put('photos', content, [accountId, gardenId, fileId])
    },
    photoIds: async (accountId, gardenId) =>
      (await (await database()).getAllKeys('photos', ofGarden(accountId, gardenId))).map(
        ([, , fileId]) => fileId,
      ),
    dropPhotos: async (accountId, gardenId, fileIds) => {
      const { store, done } = (await database()).transaction('photos', 'readwrite')
      for (const fileId of fileIds) void store.delete([accountId, gardenId, fileId])
      await done
    },
    dropGarden: async (accountId, gardenId) => {
      const transaction = (await database()).transaction(STORES, 'readwrite')
      await transaction.objectStore('entries').delete(ofGarden(accountId, gardenId))
      await transaction.objectStore('photos').delete(ofGarden(accountId, gardenId))
      await transaction.objectStore('folds').delete(ofGarden(accountId, gardenId))
      await transaction.objectStore('folded').delete([accountId, gardenId])
      await transaction.objectStore('reach').delete([accountId, gardenId])
      const answers = transaction.objectStore('answers')
      for (let at = await answers.openCursor(ofAccount(accountId)); at; at = await at.continue())
        if (at.value.gardenId === gardenId) await at.delete()
      await transaction.done
    },
    dropAccount: async (accountId) => {
      const transaction = (await database()).transaction(STORES, 'readwrite')
      for (const store of STORES) {
        if (accountId === null) await transaction.objectStore(store).clear()
        else await transaction.objectStore(store).delete(ofAccount(accountId))
      }
      await transaction.done
    },
  }
}

type Database = Awaited<ReturnType<ReturnType<typeof keptDatabase<Copied>>>>

/** Those of the entries after `from` that can be kept without a gap, and what is here then; `null` where none can. */
function whatFits(
  { base, last, before }: Reach,
  from: number,
  entries: readonly StoredEntry[],
): { readonly entries: readonly StoredEntry[]; readonly reach: Reach } | null {
  const end = entries.at(-1)?.seq
  if (end === undefined) return null
  if (from === last) return { entries, reach: { base, last: end, before } }
  if (base === 0 || from !== before) return null
  // What is after the base is here already.
  const history = entries.filter(({ seq }) => seq <= base)
  return {
    entries: history,
    reach: end >= base ? { base: 0, last, before: 0 } : { base, last, before: end },
  }
}

/** Every part that a garden's journal has, each found by one step. */
async function partsOf(db: Database, accountId: string, gardenId: string): Promise<string[]> {
  const parts: string[] = []
  let cursor = await db.transaction('entries').store.openKeyCursor(ofGarden(accountId, gardenId))
  while (cursor) {
    const [, , part] = cursor.key
    parts.push(part)
    cursor = await cursor.continue([accountId, gardenId, part, LAST as unknown as number])
  }
  return parts
}

async function partsAfter(db: Database, accountId: string, gardenId: string, seq: number): Promise<string[]> {
  const pieces = await db.getAllFromIndex('entries', 'last', after(accountId, gardenId, seq))
  return [...new Set(pieces.map((one) => one.part))]
}

/** The one of this device. */
export const copyStore: CopyStore = createCopyStore()
