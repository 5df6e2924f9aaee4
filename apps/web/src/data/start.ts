import { v7 as uuidv7 } from 'uuid'
import { api } from './api.ts'
import { canAsk, versionHeard, watchConnection } from './connection.ts'
import { COPIED_ACCOUNT_KEY } from './copy/account-key.ts'
import { journalCopy, watchCopy } from './copy/copy.ts'
import { SMALL } from './copy/fold-rules.ts'
import type { Desk } from './desk.ts'
import { browserStorage } from './draft-keeper.ts'
import { settled } from './drafts.ts'
import { watchLive } from './live.ts'
import { flushDrafts, watchDrafts } from './live-drafts.ts'
import { acknowledged } from './journal.ts'
import { bringParts, foldOn, readOn } from './read-journal.ts'
import { selectShort } from './readings.ts'
import { register } from '../offline/register.ts'
import { onAccount, onSignedOut, onSkew, onVersion } from './request.ts'
import { upsert } from './saves.ts'
import type { AppStore } from './store.ts'
import type { Reply } from './sync/answers.ts'
import { createClock } from './sync/clock.ts'
import { createDesk } from './sync/desk.ts'
import type { Writer } from './sync/desk.ts'
import { createSync } from './sync/engine.ts'
import type { Lanes, Sync } from './sync/engine.ts'
import { documentKey } from './sync/items.ts'
import type { Item } from './sync/items.ts'
import { createOutboxStore, moveEarlierOutbox } from './sync/outbox-store.ts'
import { createSenderLock } from './sync/sender-lock.ts'
import { lanesTold, saved, seen, skewed, storageTold, writerChanged } from './sync/slice.ts'
import type { LanesHere } from './sync/slice.ts'
import { loadSchemas, transmit } from './transmit.ts'

const CLOCK_KEY = 'klados.clock'
/** Below this, the network may be at fault. */
const SKEW_TOLD_MS = 2 * 60_000

let isStarted = false

/**
 * Gives the store all that lives beside it: outbox, drafts, other windows, the connection. Fills the desk
 * that the store was made with. Once, when the first garden is opened: before that there is nothing to send
 * and nobody to send it for.
 */
export function startSync(store: AppStore, desk: Desk): void {
  if (isStarted) return
  isStarted = true
  const storage = browserStorage()
  const clock = createClock({
    read: () => storage.getItem(CLOCK_KEY),
    write: (id) => {
      try {
        storage.setItem(CLOCK_KEY, id)
      } catch {
        // Then it holds as long as this window.
      }
    },
  })
  const session = () => api.endpoints.session.select(undefined)(store.getState()).data
  const writer = (): Writer | null => {
    const account = session()?.account
    return account ? { id: account.id, name: account.name } : null
  }
  /**
   * Who has a session: whoever's is over, or has been taken by somebody else in another window, goes on writing here, and
   * sends when they have signed in.
   */
  const sender = () => {
    const here = session()
    return here?.isExpired || here?.other !== undefined ? null : (writer()?.id ?? null)
  }
  const channel = 'BroadcastChannel' in globalThis ? new BroadcastChannel('klados-sync') : null
  const outbox = createOutboxStore()
  const sync = createSync({
    store: outbox,
    lock: createSenderLock(outbox, uuidv7(), navigator.locks as LockManager | undefined, Date.now),
    transmit,
    accountId: sender,
    now: () => performance.now(),
    chance: Math.random,
    setTimer,
    tellOthers: () => channel?.postMessage('changed'),
    onItems: (items) => {
      for (const item of items)
        if (item.kind === 'entry' && item.state.is === 'waiting') clock.meet(item.entry.id)
      store.dispatch(seen(items))
    },
    onTaken: (taken, reply) => takeNote(store, taken, reply),
    onStorage: (unkept) => store.dispatch(storageTold(unkept)),
    onLanes: (lanes) => store.dispatch(lanesTold(lanesHere(lanes, Date.now()))),
  })
  Object.assign(desk, createDesk(sync, clock, writer), { copy: journalCopy })
  watchCopy(store, () => store.getState().journal.gardenId)
  if (channel) channel.onmessage = () => void hearOthers(store, sync)
  watchDrafts(store, () => writer()?.id ?? null, setTimer)
  watchAccount(store, writer, sender, (id) => {
    void adopt(sync, store, id).then(sync.wake)
  })
  watchFolds(store, setTimer)
  setTimer(() => void loadSchemas(), FOLD_AFTER_MS)
  watchLive(store)
  watchConnection(store, () => {
    sync.answered()
    store.dispatch(api.util.invalidateTags(['Session', 'Garden', 'Place', 'Frame', 'Plant', 'Stores']))
    void store.dispatch(readOn())
    const { gardenId } = store.getState().journal
    if (gardenId !== null) void journalCopy.fill(gardenId, null)
  })
  // The session is asked for anew and found to be nobody's: the door opens, drafts and outbox stay on this
  // machine.
  onSignedOut(() => store.dispatch(api.util.invalidateTags(['Session'])))
  // What only this window has would go with it.
  addEventListener('beforeunload', (event) => {
    if (store.getState().sync.unkept > 0) event.preventDefault()
  })
  onVersion((isOurs) => {
    if (isOurs === store.getState().connection.isOld) store.dispatch(versionHeard(isOurs))
  })
  // Another window has signed somebody else in, or in again: who that is, is asked.
  onAccount((accountId) => {
    const { other } = session() ?? {}
    if (accountId !== writer()?.id && other === undefined)
      store.dispatch(api.util.invalidateTags(['Session']))
  })
  addEventListener('storage', ({ key }) => {
    if (key === COPIED_ACCOUNT_KEY) store.dispatch(api.util.invalidateTags(['Session']))
  })
  onSkew((skewMs) =>
    store.dispatch(skewed(Math.abs(skewMs) > SKEW_TOLD_MS ? Math.round(skewMs / 60_000) * 60_000 : 0)),
  )
  if (import.meta.env.PROD) void register()
  addEventListener('online', sync.wake)
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') sync.wake()
    else flushDrafts()
  })
  addEventListener('pagehide', flushDrafts)
  void moveEarlierOutbox(outbox)
    .catch(() => 0)
    .then(sync.start)
    .then(() => {
      const id = writer()?.id
      return id ? adopt(sync, store, id) : undefined
    })
}

function lanesHere({ againInMs, photos }: Lanes, now: number): LanesHere {
  const at = (ms: number | null) => (ms === null ? null : now + ms)
  return {
    againAt: at(againInMs),
    photos: Object.fromEntries(
      Object.entries(photos).map(([key, one]) => [
        key,
        { sentBytes: one.sentBytes, againAt: at(one.againInMs) },
      ]),
    ),
  }
}

function setTimer(work: () => void, ms: number): () => void {
  const timer = setTimeout(work, ms)
  return () => clearTimeout(timer)
}

/** So many entries are read on top of the folds before they are folded too. */
const FOLD_FROM = 200
const NONE: readonly string[] = []
/** Not while one waits for the first screen. */
const FOLD_AFTER_MS = 4000

/** Brings the entries that a fold alone cannot be gone on from, and folds now and then what has been read. */
function watchFolds(store: AppStore, setTimer: (work: () => void, ms: number) => () => void): void {
  let asked = new Set<string>()
  let askedOf: string | null = null
  let lastWanted: readonly string[] = NONE
  let isFolding = false
  let wasAway = false
  const look = () => {
    const state = store.getState()
    const isAway = !canAsk(state)
    // What could not be had without the server is asked for again when it is back.
    if (wasAway && !isAway) asked.clear()
    wasAway = isAway
    const { status, last, foldedTo, partsAtHand, gardenId } = state.journal
    if (status !== 'ready') return
    const wanted = partsAtHand === 'all' ? NONE : selectShort(state)
    // What was brought may be let go again, and be wanted once more.
    if (gardenId !== askedOf || wanted !== lastWanted)
      asked = new Set(gardenId === askedOf ? wanted.filter((part) => asked.has(part)) : [])
    ;[askedOf, lastWanted] = [gardenId, wanted]
    const short = wanted.filter((part) => !asked.has(part))
    if (short.length > 0) {
      for (const part of short) asked.add(part)
      void store.dispatch(bringParts(short))
    }
    if (isFolding || last <= SMALL || last - foldedTo < FOLD_FROM) return
    isFolding = true
    setTimer(() => {
      // A device that would not fold is not asked again by this window.
      void store.dispatch(foldOn()).then((isDone) => (isFolding = !isDone))
    }, FOLD_AFTER_MS)
  }
  store.subscribe(look)
}

/** The server has it: what is on screen goes on from there. */
function takeNote(store: AppStore, taken: readonly Item[], reply: Reply): void {
  const entries = taken.flatMap((item) => (item.kind === 'entry' ? [item.entry] : []))
  if (entries.length > 0) {
    const { gardenId } = store.getState().journal
    const here = taken.flatMap((item) =>
      item.kind === 'entry' && item.gardenId === gardenId ? [item.entry] : [],
    )
    store.dispatch(acknowledged(here))
    void store.dispatch(readOn())
  }
  for (const item of taken) {
    if (item.kind !== 'document' || reply.kind !== 'ours') continue
    const stored = reply.body as { id: string; version: number }
    store.dispatch(saved({ id: item.documentId, version: stored.version }))
    store.dispatch(upsert(item.area, item.gardenId, stored))
    store.dispatch(
      settled({ frameId: item.documentId, version: stored.version, savedBody: item.saves[0].body }),
    )
  }
}

/** Another window has written or sent something. */
async function hearOthers(store: AppStore, sync: Sync): Promise<void> {
  const before = sync.items()
  await sync.reload()
  const now = new Set(sync.items().map(({ key }) => key))
  const gone = before.filter(({ key }) => !now.has(key))
  if (gone.some(({ kind }) => kind === 'entry')) void store.dispatch(readOn())
  if (gone.some(({ kind }) => kind === 'document'))
    store.dispatch(api.util.invalidateTags(['Place', 'Frame', 'Plant', 'Stores']))
}

/**
 * What an earlier release left unsent did not say whose it was: whoever belongs to its garden may send it.
 */
async function adopt(sync: Sync, store: AppStore, accountId: string): Promise<void> {
  const gardens = new Set(
    api.endpoints.session
      .select(undefined)(store.getState())
      .data?.memberships.map(({ gardenId }) => gardenId),
  )
  for (const item of sync.items()) {
    if (item.accountId === null && gardens.has(item.gardenId))
      await sync.change(item.key, (before) => ({ ...before, accountId, key: keyOf(before, accountId) }))
  }
}

const keyOf = (item: Item, accountId: string) =>
  item.kind === 'document' ? documentKey(item.documentId, accountId) : item.key

/** Calls `onAccount` when somebody signs in, anew too, and for whoever is signed in already. */
function watchAccount(
  store: AppStore,
  writer: () => Writer | null,
  sender: () => string | null,
  onAccount: (id: string) => void,
): void {
  let current: string | null = null
  let sending: string | null = null
  const look = () => {
    const id = writer()?.id ?? null
    if (id !== current) store.dispatch(writerChanged((current = id)))
    const now = sender()
    if (now === sending) return
    sending = now
    if (now !== null) onAccount(now)
  }
  store.subscribe(look)
  look()
}
