import type { StoredEntry } from '@klados/contract'
import { UPCASTS } from '@klados/contract/upcasts'
import { keptDatabase } from '../kept-database.ts'
import {
  inOrder,
  keyOf,
  ofAccount,
  ofGarden,
  ofPart,
  partsAfter,
  partsOf,
  piecesOf,
  sinceNumber,
} from './copied.ts'
import type { Copied, InGarden, OfGarden } from './copied.ts'
import { FOLD_RULES } from './fold-rules.ts'
import { broughtUp } from './older-answers.ts'
import { NOTHING, hasAll, whatFits } from './reach.ts'
import { byShelf, withFolds } from './shelves.ts'
import type { KeptFold } from '@klados/core/part-fold'

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
  /** A photo of a place or of the journal. */
  readonly photo: (accountId: string, gardenId: string, fileId: string) => Promise<Blob | undefined>
  readonly keepPhoto: (accountId: string, gardenId: string, fileId: string, content: Blob) => Promise<void>
  readonly photoIds: (accountId: string, gardenId: string) => Promise<readonly string[]>
  readonly dropPhotos: (accountId: string, gardenId: string, fileIds: readonly string[]) => Promise<void>
  /** Keeps a photo of the journal; the oldest make room for it. */
  readonly keepSeen: (accountId: string, gardenId: string, fileId: string, content: Blob) => Promise<void>
  readonly dropGarden: (accountId: string, gardenId: string) => Promise<void>
  /** All that was kept for one account, or for all of them. */
  readonly dropAccount: (accountId: string | null) => Promise<void>
}

const DATABASE = 'klados-copy'
/** The copy of an earlier release is made anew: it is only a copy. */
const VERSION = 7
/** The release before this one knew no photos of the journal; all else of its copy stays. */
const BEFORE_SEEN = 6
/** So many photos of a garden's journal lie here. */
export const MOST_SEEN = 60
/** Parts that are folded between two writes. */
const AT_ONCE = 100
const STORES = ['answers', 'entries', 'reach', 'folds', 'folded', 'photos', 'seen'] as const
/** A part that lies in more pieces is put together when it is folded. */
const MANY_PIECES = 8

export function createCopyStore(name = DATABASE): CopyStore {
  const database = keptDatabase<Copied>(name, VERSION, (db, from) => {
    if (from === BEFORE_SEEN) return void db.createObjectStore('seen')
    for (const store of [...db.objectStoreNames]) db.deleteObjectStore(store)
    db.createObjectStore('answers')
    db.createObjectStore('folds')
    db.createObjectStore('folded')
    db.createObjectStore('photos')
    db.createObjectStore('seen')
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
        db.getAllFromIndex('entries', 'last', sinceNumber(accountId, gardenId, foldedTo)),
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
    photo: async (accountId, gardenId, fileId) => {
      const db = await database()
      const key: OfGarden = [accountId, gardenId, fileId]
      return (await db.get('photos', key)) ?? db.get('seen', key)
    },
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
    keepSeen: async (accountId, gardenId, fileId, content) => {
      const { store, done } = (await database()).transaction('seen', 'readwrite')
      void store.put(content, [accountId, gardenId, fileId])
      // Their ids are in the order in which they were taken, and so are the keys.
      const keys = await store.getAllKeys(ofGarden(accountId, gardenId))
      for (const key of keys.slice(0, Math.max(0, keys.length - MOST_SEEN))) void store.delete(key)
      await done
    },
    dropGarden: async (accountId, gardenId) => {
      const transaction = (await database()).transaction(STORES, 'readwrite')
      await transaction.objectStore('entries').delete(ofGarden(accountId, gardenId))
      await transaction.objectStore('photos').delete(ofGarden(accountId, gardenId))
      await transaction.objectStore('seen').delete(ofGarden(accountId, gardenId))
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

/** The one of this device. */
export const copyStore: CopyStore = createCopyStore()
