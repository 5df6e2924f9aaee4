import { MAX_ENTRIES } from '@klados/contract/limits'
import { meaningOf, verdictsIn } from './answers.ts'
import type { EntryVerdict, Reason, Reply } from './answers.ts'
import { WAITING, asideKey, documentKey, lastSave, photoKey } from './items.ts'
import type { DocumentItem, DocumentSave, EntryItem, Item, PhotoItem } from './items.ts'

/** One request to be made. */
export type Send =
  | { readonly kind: 'entries'; readonly gardenId: string; readonly items: readonly EntryItem[] }
  | {
      readonly kind: 'document'
      readonly gardenId: string
      readonly item: DocumentItem
      /** An earlier sending of it had no answer: it may be stored already. */
      readonly isAgain: boolean
    }
  | { readonly kind: 'photo'; readonly gardenId: string; readonly item: PhotoItem }

export interface Occasion {
  /** Who is signed in; what others wrote on this device stays for them. */
  readonly accountId: string
  /** Items that have been held since the last occasion to ask again: not asked about twice. */
  readonly asked: ReadonlySet<string>
  /** The most entries in one request, after one was too much. */
  readonly mostEntries: number
  /** The most bytes of entries in one request: what a slow line carries before one loses patience with it. */
  readonly mostBytes: number
}

/** Below the server's limit of one megabyte for a request. */
export const MOST_BYTES = 800_000
export const LEAST_BYTES = 4_000

const needsRefused: Reason = { code: 'sync/needs-refused', message: 'What this belongs to was refused' }

/** What an item names that may still be in the outbox itself: keys of items. */
function needsOf(item: Item): string[] {
  if (item.kind === 'photo') return []
  const documentOf = (id: string) => documentKey(id, item.accountId)
  if (item.kind === 'document') {
    const { placeId, photo } = lastSave(item).body as { placeId?: string; photo?: { fileId: string } | null }
    return [...(placeId ? [documentOf(placeId)] : []), ...(photo ? [photoKey(photo.fileId)] : [])]
  }
  const { placeId, plantId, supersedes, body } = item.entry
  const frameId = 'frameId' in body ? body.frameId : null
  const fileId = 'fileId' in body ? body.fileId : null
  return [
    documentOf(placeId),
    ...(plantId ? [documentOf(plantId)] : []),
    ...(frameId ? [documentOf(frameId)] : []),
    ...(fileId ? [photoKey(fileId)] : []),
    ...(supersedes ? [`entry ${supersedes}`] : []),
  ]
}

/** Keys of documents that came to nothing: refused while they were new, and not saved again since. */
function refusedDocuments(items: readonly Item[]): ReadonlySet<string> {
  const active = new Set(items.map(({ key }) => key))
  return new Set(
    items.flatMap((item) => {
      if (item.kind !== 'document' || item.state.is !== 'refused' || item.saves[0].basedOn > 0) return []
      const key = documentKey(item.documentId, item.accountId)
      return active.has(key) ? [] : [key]
    }),
  )
}

/** Which of the things that an item needs keeps it: one that still waits, or one that was refused. */
function keptBy(
  item: Item,
  byKey: ReadonlyMap<string, Item>,
  refusedNew: ReadonlySet<string>,
): 'waits' | 'refused' | null {
  let kept: 'waits' | null = null
  for (const key of needsOf(item)) {
    if (refusedNew.has(key)) return 'refused'
    const needed = byKey.get(key)
    if (!needed || needed === item) continue
    if (needed.state.is === 'refused') return 'refused'
    // Entries go in one request in the order of their ids; a document that the server has already keeps
    // nobody waiting.
    if (needed.kind === 'document' && needed.saves[0].basedOn > 0) continue
    if (needed.kind === 'entry' && needed.state.is === 'waiting') continue
    kept = 'waits'
  }
  return kept
}

/** Photos that could go now, those first that waited longest. */
export function readyPhotos(
  items: readonly Item[],
  occasion: Pick<Occasion, 'accountId' | 'asked'>,
): PhotoItem[] {
  return items.filter(
    (item): item is PhotoItem =>
      item.kind === 'photo' && item.accountId === occasion.accountId && isReady(item, occasion.asked),
  )
}

const isReady = ({ state, key }: Item, asked: ReadonlySet<string>): boolean =>
  state.is === 'waiting' || (state.is === 'held' && !asked.has(key))

/**
 * The next request of all but photos, which go beside; or null when there is nothing more to send now. What shows a photo
 * waits for it, and nothing else does; documents come before the entries that name them, entries in the order in which
 * they were written.
 */
export function nextSend(items: readonly Item[], occasion: Occasion): Send | null {
  const own = items.filter(({ accountId }) => accountId === occasion.accountId)
  const byKey = new Map(own.map((item) => [item.key, item]))
  const refusedNew = refusedDocuments(own)
  const ready = own.filter(
    (item) =>
      item.kind !== 'photo' && isReady(item, occasion.asked) && keptBy(item, byKey, refusedNew) === null,
  )
  const document = ready.filter((item) => item.kind === 'document').sort(byMaking)[0]
  if (document)
    return { kind: 'document', gardenId: document.gardenId, item: document, isAgain: document.isTried }
  const entries = ready.filter((item) => item.kind === 'entry').sort((a, b) => (a.key < b.key ? -1 : 1))
  const [first] = entries
  if (!first) return null
  return {
    kind: 'entries',
    gardenId: first.gardenId,
    items: batchOf(entries, first.gardenId, occasion),
  }
}

/** By the instant in the id of the save. */
function byMaking(a: DocumentItem, b: DocumentItem): number {
  return a.saves[0].saveId < b.saves[0].saveId ? -1 : 1
}

function batchOf(
  entries: readonly EntryItem[],
  gardenId: string,
  { mostEntries, mostBytes }: Pick<Occasion, 'mostEntries' | 'mostBytes'>,
): EntryItem[] {
  const batch: EntryItem[] = []
  let bytes = 0
  for (const item of entries) {
    if (item.gardenId !== gardenId) continue
    bytes += JSON.stringify(item.entry).length * 2
    if (batch.length > 0 && (batch.length >= Math.min(mostEntries, MAX_ENTRIES) || bytes > mostBytes)) break
    batch.push(item)
  }
  return batch
}

/** The photo that something waits for, where that is still on its way. */
export function photoNeededBy(item: Item, items: readonly Item[]): PhotoItem | undefined {
  const needed = new Set(needsOf(item))
  return items.find((one): one is PhotoItem => one.kind === 'photo' && needed.has(one.key))
}

/** Items whose need was refused: they are held, and say so, until their writer has decided about that. */
export function heldByNeeds(items: readonly Item[]): Item[] {
  const byKey = new Map(items.map((item) => [item.key, item]))
  const refusedNew = refusedDocuments(items)
  return items.flatMap((item) =>
    item.state.is === 'waiting' && keptBy(item, byKey, refusedNew) === 'refused'
      ? [{ ...item, state: { is: 'held', ...needsRefused } } as Item]
      : [],
  )
}

/** What an answer changes. */
export interface Settled {
  /** Items to be written in place of those with the same key. */
  readonly put: readonly Item[]
  /** Keys of items that leave the outbox: the server has them, or they have moved to another key. */
  readonly drop: readonly string[]
  readonly taken: readonly Item[]
  /** The whole queue stops: nothing else would fare better now. */
  readonly pause: null | { readonly why: 'away' | 'signed-out' | 'later'; readonly afterS: number | null }
  /** Entries for the next request at the most, when this one was too much. */
  readonly mostEntries?: number
  /** Held by this very answer. */
  readonly asked: readonly string[]
}

const nothing: Settled = { put: [], drop: [], taken: [], pause: null, asked: [] }

export function settle(send: Send, reply: Reply): Settled {
  const meaning = meaningOf(reply)
  if (meaning.is === 'away' || meaning.is === 'signed-out')
    return { ...nothing, pause: { why: meaning.is, afterS: null } }
  if (meaning.is === 'later') return { ...nothing, pause: { why: 'later', afterS: meaning.afterS } }
  if (send.kind === 'entries') return settleEntries(send.items, reply)
  const { item } = send
  if (meaning.is === 'taken')
    return send.kind === 'document'
      ? takenDocument(send.item, reply)
      : { ...nothing, drop: [item.key], taken: [item] }
  if (meaning.is === 'held') {
    // Answered, so not stored, unless an earlier sending was: then a later save may not take its place.
    const isTried = send.kind === 'document' && send.isAgain
    return {
      ...nothing,
      put: [{ ...item, isTried, state: { is: 'held', ...meaning.reason } } as Item],
      asked: [item.key],
    }
  }
  const state =
    meaning.is === 'clashed'
      ? { is: 'clashed' as const, ...meaning.current }
      : { is: 'refused' as const, ...meaning.reason }
  if (send.kind === 'photo') return { ...nothing, put: [{ ...item, state }] }
  const aside = {
    ...send.item,
    key: asideKey(lastSave(send.item).saveId),
    saves: [lastSave(send.item)] as [DocumentSave],
    state,
  }
  return { ...nothing, put: [aside], drop: [item.key] }
}

function settleEntries(items: readonly EntryItem[], reply: Reply): Settled {
  const meaning = meaningOf(reply)
  if (meaning.is === 'taken') {
    const verdicts = verdictsIn(reply.kind === 'ours' ? reply.body : null, items.length)
    // A success that does not say what became of each is no success of ours.
    if (!verdicts) return { ...nothing, pause: { why: 'away', afterS: null } }
    return answered(items, verdicts)
  }
  const reason = 'reason' in meaning ? meaning.reason : { code: 'server/failed', message: '' }
  // A whole batch was turned down: which of them is at fault is found by halving.
  if (meaning.is !== 'held' && items.length > 1)
    return { ...nothing, mostEntries: Math.ceil(items.length / 2) }
  const is = meaning.is === 'held' ? 'held' : 'refused'
  return answered(
    items,
    items.map(() => ({ answer: is, ...reason })),
  )
}

function answered(items: readonly EntryItem[], verdicts: readonly EntryVerdict[]): Settled {
  const taken = items.filter((_, i) => verdicts[i]!.answer === 'taken')
  const put = items.flatMap((item, i) => {
    const verdict = verdicts[i]!
    if (verdict.answer === 'taken') return []
    const { answer: is, ...reason } = verdict
    return [{ ...item, state: { is, ...reason } } as EntryItem]
  })
  const asked = put.filter(({ state }) => state.is === 'held').map(({ key }) => key)
  return { ...nothing, put, drop: taken.map(({ key }) => key), taken, asked }
}

function takenDocument(item: DocumentItem, reply: Reply): Settled {
  const version =
    (reply.kind === 'ours' ? (reply.body as { version?: unknown } | null)?.version : null) ?? null
  if (typeof version !== 'number') return { ...nothing, pause: { why: 'away', afterS: null } }
  const [, next] = item.saves
  if (!next) return { ...nothing, drop: [item.key], taken: [item] }
  const rest: DocumentItem = {
    ...item,
    saves: [{ ...next, basedOn: version }],
    isTried: false,
    state: WAITING,
  }
  return { ...nothing, put: [rest], taken: [item] }
}

/**
 * A save behind what waits of the same document already. One that was never sent makes way for the newer; one
 * that was may be stored although its answer was lost, so it stays in front, and what comes after is based on
 * what it makes.
 */
export function withSave(waiting: DocumentItem | undefined, item: DocumentItem): DocumentItem {
  if (!waiting) return item
  const [save] = item.saves
  const [first] = waiting.saves
  if (waiting.isTried)
    return { ...waiting, state: WAITING, saves: [first, { ...save, basedOn: first.basedOn + 1 }] }
  return { ...waiting, state: WAITING, saves: [{ ...save, basedOn: first.basedOn }] }
}
