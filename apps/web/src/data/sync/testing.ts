import type { JournalEntry } from '@klados/core/journal'
import { v7 as uuidv7 } from 'uuid'
import type { Reply } from './answers.ts'
import { createClock } from './clock.ts'
import { createDesk } from './desk.ts'
import type { SaveRequest, SyncDesk } from './desk.ts'
import { createSync } from './engine.ts'
import type { Lanes, Sync } from './engine.ts'
import type { Item } from './items.ts'
import type { OutboxStore } from './outbox-store.ts'
import type { Send } from './rules.ts'
import { createSenderLock } from './sender-lock.ts'

export const ours = (status: number, body: unknown = {}, retryAfterS: number | null = null): Reply => ({
  kind: 'ours',
  status,
  body,
  retryAfterS,
})
export const refusal = (status: number, code: string, more: object = {}): Reply =>
  ours(status, { error: { code, message: code, ...more } })

/**
 * A server in miniature, as the real one answers: each entry by itself, versions of documents, saves by their
 * id.
 */
export function fakeServer() {
  const entries = new Map<string, JournalEntry>()
  const saves = new Map<string, number>()
  const versions = new Map<string, { version: number; body: unknown }>()
  const photos = new Set<string>()
  const state = { appends: [] as number[], knowsPlaces: true }
  const known = (placeId: string) => state.knowsPlaces || versions.has(placeId)
  const answerEntry = (entry: JournalEntry) => {
    if (entry.kind === 'note.written' && entry.body.text === 'bad')
      return { answer: 'refused', code: 'request/malformed', message: 'bad' }
    if (!known(entry.placeId)) return { answer: 'held', code: 'journal/unknown-place', message: 'unknown' }
    entries.set(entry.id, entry)
    return { answer: 'taken', seq: entries.size }
  }
  const respond = (send: Send): Reply => {
    if (send.kind === 'photo') {
      photos.add(send.item.fileId)
      return ours(200, { id: send.item.fileId })
    }
    if (send.kind === 'entries') {
      state.appends.push(send.items.length)
      return ours(200, { answers: send.items.map(({ entry }) => answerEntry(entry)) })
    }
    const { documentId, saves: own } = send.item
    const [save] = own
    const stored = versions.get(documentId)
    if (saves.has(save.saveId))
      return ours(200, { id: documentId, version: saves.get(save.saveId), body: save.body })
    if ((stored?.version ?? 0) !== save.basedOn)
      return refusal(409, 'document/version-conflict', {
        current: { version: stored?.version ?? 1, savedBy: 'Isla' },
      })
    saves.set(save.saveId, save.basedOn + 1)
    versions.set(documentId, { version: save.basedOn + 1, body: save.body })
    return ours(200, { id: documentId, version: save.basedOn + 1, body: save.body })
  }
  return { entries, versions, photos, state, respond }
}

export interface Window {
  readonly sync: Sync
  readonly desk: SyncDesk
  /** What the screen of this window would show. */
  readonly shown: () => readonly Item[]
  readonly taken: Item[]
  readonly storageFailures: () => number
  readonly lanes: () => Lanes
  /** Runs the timer that is set, as if its time had come. */
  readonly runTimer: () => Promise<void>
  readonly timerMs: () => number | null
  readonly clock: { now: number }
}

/** One window of a browser on an outbox that it may share with others. */
export function openWindow(
  store: OutboxStore,
  transmit: (send: Send) => Reply | Promise<Reply>,
  options: { account?: () => string | null; others?: () => readonly Window[]; holder?: string } = {},
): Window {
  const account = options.account ?? (() => 'me')
  const time = { now: 1_000_000 }
  let shown: readonly Item[] = []
  let failures = 0
  let lanes: Lanes = { againInMs: null, photos: {} }
  let timer: { work: () => void; ms: number } | null = null
  const taken: Item[] = []
  const holder = options.holder ?? uuidv7()
  const sync = createSync({
    store,
    lock: createSenderLock(store, holder, undefined, () => time.now),
    transmit: async (send) => transmit(send),
    accountId: account,
    now: () => time.now,
    chance: () => 1,
    setTimer: (work, ms) => {
      // The patience of a save is no timer of the queue.
      if (ms === 15_000) return () => undefined
      const own = { work, ms }
      timer = own
      return () => {
        if (timer === own) timer = null
      }
    },
    tellOthers: () => options.others?.().forEach((other) => void other.sync.reload()),
    onItems: (items) => (shown = items),
    onTaken: (items) => taken.push(...items),
    onStorage: () => failures++,
    onLanes: (told) => (lanes = told),
  })
  const clock = createClock({ read: () => null, write: () => undefined })
  const desk = createDesk(sync, clock, () => {
    const id = account()
    return id === null ? null : { id, name: id }
  })
  return {
    sync,
    desk,
    clock: time,
    taken,
    shown: () => shown,
    storageFailures: () => failures,
    lanes: () => lanes,
    timerMs: () => timer?.ms ?? null,
    runTimer: async () => {
      const due = timer
      timer = null
      time.now += due?.ms ?? 0
      due?.work()
      await rest()
    },
  }
}

/** Until the outbox and the queue have nothing more to do by themselves. */
export async function rest(): Promise<void> {
  for (let i = 0; i < 8; i++) await new Promise((resolve) => setTimeout(resolve, 2))
}

export const PLACE = '0195a000-0000-7000-8000-000000000001'
let count = 0
export function note(text: string, rest: Partial<JournalEntry> = {}): JournalEntry {
  const id = uuidv7({ msecs: 1_700_000_000_000 + ++count, seq: 0 })
  return {
    id,
    placeId: PLACE,
    plantId: null,
    kind: 'note.written',
    at: '2026-03-01',
    recordedAt: '2026-03-01T12:00:00.000Z',
    supersedes: null,
    body: { v: 1, text },
    ...rest,
  } as JournalEntry
}
export function save(
  documentId: string,
  basedOn: number,
  body: object,
  area: SaveRequest['area'] = 'frames',
): SaveRequest {
  return { area, gardenId: 'g', documentId, basedOn, body, note: '', isRemoved: false }
}
