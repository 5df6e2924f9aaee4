import { BODY_VERSIONS } from '@klados/contract/upcasts'
import type { JournalEntry } from '@klados/core/journal'
import { v7 as uuidv7 } from 'uuid'
import type { HybridClock } from './clock.ts'
import type { Sync } from './engine.ts'
import { WAITING, documentKey, entryKey, lastSave, photoKey } from './items.ts'
import type { DocumentArea, DocumentItem, Item } from './items.ts'
import type { Reply } from './answers.ts'
import type { Outcome } from './engine.ts'

/** Who writes here now. */
export interface Writer {
  readonly id: string
  readonly name: string
}

export interface SaveRequest {
  readonly area: DocumentArea
  readonly gardenId: string
  readonly documentId: string
  readonly basedOn: number
  readonly body: unknown
  readonly note: string
  readonly isRemoved: boolean
}

/** Where things are handed in to be sent, and where one decides about what was not taken. */
export interface SyncDesk {
  readonly clock: HybridClock
  readonly addEntries: (gardenId: string, entries: readonly JournalEntry[]) => Promise<void>
  readonly addSave: (
    save: SaveRequest,
  ) => Promise<{ outcome: Outcome; reply: Reply | null; item: Item | null }>
  readonly addPhoto: (gardenId: string, fileId: string, content: Blob) => Promise<void>
  /** Sends it once more, as it is. */
  readonly tryAgain: (key: string) => Promise<void>
  readonly letGo: (key: string) => Promise<void>
  /**
   * Sends entries in a mended form, under ids of their own: the clock that made the old ones may have been at fault. What
   * stands in the place of one of them stands in the place of the mended one.
   */
  readonly mend: (keys: readonly string[], change: (entry: JournalEntry) => JournalEntry) => Promise<void>
  /** Sends a save that met a newer version, now based on that one. */
  readonly saveOver: (key: string) => Promise<void>
}

export function createDesk(sync: Sync, clock: HybridClock, writer: () => Writer | null): SyncDesk {
  const common = (gardenId: string) => {
    const { id, name } = writer() ?? { id: null, name: '' }
    return { gardenId, accountId: id, accountName: name, state: WAITING }
  }
  const find = (key: string) => sync.items().find((item) => item.key === key)
  /** The outbox takes its transactions in order: the new one is in it before the old one goes. */
  const replaceAside = (item: DocumentItem, basedOn: number) => {
    const save = { ...lastSave(item), saveId: uuidv7(), basedOn }
    void sync.addSave({
      ...item,
      key: documentKey(item.documentId, item.accountId),
      state: WAITING,
      isTried: false,
      saves: [save],
    })
    return sync.change(item.key, () => undefined)
  }
  return {
    clock,
    addEntries: (gardenId, entries) =>
      sync.add(
        entries.map((entry) => ({ ...common(gardenId), kind: 'entry', key: entryKey(entry.id), entry })),
      ),
    addSave: ({ area, gardenId, documentId, ...save }) => {
      const head = common(gardenId)
      return sync.addSave({
        ...head,
        kind: 'document',
        key: documentKey(documentId, head.accountId),
        area,
        documentId,
        saves: [{ ...save, saveId: uuidv7(), bodyVersion: BODY_VERSIONS[area] }],
        isTried: false,
      })
    },
    addPhoto: (gardenId, fileId, content) =>
      sync.add([{ ...common(gardenId), kind: 'photo', key: photoKey(fileId), fileId, content }]),
    tryAgain: async (key) => {
      const item = find(key)
      if (item?.kind !== 'document' || item.key === documentKey(item.documentId, item.accountId))
        return sync.change(key, (before) => ({ ...before, state: WAITING }))
      await replaceAside(item, lastSave(item).basedOn)
    },
    letGo: (key) => sync.change(key, () => undefined),
    mend: async (keys, change) => {
      const entries = keys
        .flatMap((key) => find(key) ?? [])
        .filter((item) => item.kind === 'entry')
        .sort((a, b) => (a.entry.id < b.entry.id ? -1 : 1))
      const newIds = new Map(entries.map(({ entry }) => [entry.id, clock.makeId()]))
      const now = (supersedes: string | null) =>
        supersedes === null ? null : (newIds.get(supersedes) ?? supersedes)
      await sync.add(
        entries.map((item) => {
          const id = newIds.get(item.entry.id)!
          const entry = { ...change(item.entry), id, supersedes: now(item.entry.supersedes) }
          return { ...item, key: entryKey(id), entry, state: WAITING }
        }),
      )
      for (const { key } of entries) await sync.change(key, () => undefined)
      // What was held for want of one of them.
      for (const item of sync.items())
        if (item.kind === 'entry' && item.entry.supersedes !== null && newIds.has(item.entry.supersedes))
          await sync.change(item.key, (before) =>
            before.kind === 'entry'
              ? {
                  ...before,
                  state: WAITING,
                  entry: { ...before.entry, supersedes: now(before.entry.supersedes) },
                }
              : before,
          )
    },
    saveOver: async (key) => {
      const item = find(key)
      if (item?.kind !== 'document' || item.state.is !== 'clashed') return
      await replaceAside(item, item.state.version)
    },
  }
}
