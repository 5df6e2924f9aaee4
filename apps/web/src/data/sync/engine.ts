import { LEAST_BYTES, MOST_BYTES, heldByNeeds, nextSend, readyPhotos, settle, withSave } from './rules.ts'
import type { Send, Settled } from './rules.ts'
import type { Reply } from './answers.ts'
import type { DocumentItem, Item, PhotoItem } from './items.ts'
import { createKeptItems } from './kept-items.ts'
import { createLane } from './lane.ts'
import type { OutboxStore } from './outbox-store.ts'
import type { SenderLock } from './sender-lock.ts'

/** How the sending stands, for whoever asks what waits and for how long. */
export interface Lanes {
  /** Until entries and documents are tried again; null while nothing keeps them. */
  readonly againInMs: number | null
  /** By their keys, photos that are on their way or have stopped there. */
  readonly photos: Readonly<Record<string, PhotoLane>>
}
export interface PhotoLane {
  readonly sentBytes: number
  readonly againInMs: number | null
}

/** What the engine needs from the world around it. */
export interface SyncPorts {
  readonly store: OutboxStore
  readonly lock: SenderLock
  /** `onSent` hears how much of a photo the server has. */
  readonly transmit: (send: Send, onSent: (bytes: number) => void) => Promise<Reply>
  /** Who is signed in; null while nobody is, or while it is not known. */
  readonly accountId: () => string | null
  /** In milliseconds, never running backwards: the clock on the wall may be set while something waits. */
  readonly now: () => number
  /** Of 0 to 1: keeps many devices from coming back in the same moment. */
  readonly chance: () => number
  readonly setTimer: (work: () => void, ms: number) => () => void
  /** Tells other windows that the outbox has changed. */
  readonly tellOthers: () => void
  readonly onItems: (items: readonly Item[]) => void
  readonly onTaken: (taken: readonly Item[], replies: Reply) => void
  /** Told with what the disk would not keep: it lasts as long as this window. */
  readonly onStorage: (unkept: number) => void
  readonly onLanes: (lanes: Lanes) => void
}

export type Outcome = 'saved' | 'waiting' | 'clashed' | 'refused'

export interface Sync {
  /** Looks at what is in the outbox and sends what can be sent. */
  readonly start: () => Promise<void>
  /**
   * Something has changed that may let held things through: a connection, a session, a window that is looked
   * at again.
   */
  readonly wake: () => void
  /** The server, which was away or busy, answers again: what it had asked for is over. */
  readonly answered: () => void
  /** Takes what another window has written. */
  readonly reload: () => Promise<void>
  /**
   * Puts an item into the outbox. Resolves when it is kept there: what happens to it then is another matter.
   */
  readonly add: (items: readonly Item[]) => Promise<void>
  /** Puts a save into the outbox and resolves with what became of it, or that it waits. */
  readonly addSave: (
    item: DocumentItem,
  ) => Promise<{ readonly outcome: Outcome; readonly reply: Reply | null; readonly item: Item | null }>
  readonly change: (key: string, change: (before: Item) => Item | undefined) => Promise<void>
  readonly items: () => readonly Item[]
  readonly stop: () => void
}

const FIRST_PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 60_000
/** Held things are asked about again this often, without any other occasion. */
const ASK_AGAIN_MS = 5 * 60_000
/** A save that is not through by then is one that waits. */
const PATIENCE_MS = 15_000

interface PhotoPause {
  readonly until: number
  readonly failures: number
  readonly why: 'away' | 'later'
}

/** The one way of everything that is written to the server: kept first, sent until it has its answer. */
export function createSync(ports: SyncPorts): Sync {
  const { store, now } = ports
  const kept = createKeptItems(store, ports)
  let asked = new Set<string>()
  let failures = 0
  let mostEntries = Number.POSITIVE_INFINITY
  let mostBytes = MOST_BYTES
  let notBefore = 0
  let raiseAt = 0
  let isStopped = false
  let cancelTimer: () => void = () => undefined
  let cancelPhotoTimer: () => void = () => undefined
  const photoPauses = new Map<string, PhotoPause>()
  const photosSent = new Map<string, number>()
  const waiters = new Map<
    string,
    (settled: { outcome: Outcome; reply: Reply | null; item: Item | null }) => void
  >()

  const tellLanes = () => {
    const until = Math.max(notBefore, raiseAt)
    const inMs = (at: number | undefined) => (at !== undefined && at > now() ? at - now() : null)
    const keys = new Set([...photoPauses.keys(), ...photosSent.keys()])
    ports.onLanes({
      againInMs: inMs(until),
      photos: Object.fromEntries(
        [...keys].map((key) => [
          key,
          { sentBytes: photosSent.get(key) ?? 0, againInMs: inMs(photoPauses.get(key)?.until) },
        ]),
      ),
    })
  }

  const { read, show, keep, drop, update, replace } = kept
  const answer = (saveId: string, outcome: Outcome, reply: Reply | null, item: Item | null) => {
    waiters.get(saveId)?.({ outcome, reply, item })
    waiters.delete(saveId)
  }

  /**
   * Between the sending and the answer the writer may have gone on: what is there now counts, not what was
   * read before.
   */
  const apply = async (send: Send, settled: Settled, reply: Reply) => {
    const answers: (() => void)[] = []
    if (send.kind === 'document') {
      const sent = send.item.saves[0].saveId
      const wasTaken = settled.taken.length > 0
      let aside: Item | undefined
      await update(send.item.key, (before) => {
        if (before?.kind !== 'document' || before.saves[0].saveId !== sent) return before
        const again = settle({ ...send, item: before }, reply)
        aside = again.put.find(({ key }) => key !== send.item.key)
        return again.put.find(({ key }) => key === send.item.key)
      })
      if (aside) await keep([aside])
      const left = aside
      if (wasTaken) answers.push(() => answer(sent, 'saved', reply, send.item))
      else if (left)
        for (const save of send.item.saves)
          if (save)
            answers.push(() =>
              answer(save.saveId, left.state.is === 'clashed' ? 'clashed' : 'refused', reply, left),
            )
    } else {
      await replace(settled.put)
      await drop(settled.drop)
    }
    if (settled.taken.length > 0) {
      ports.onTaken(settled.taken, reply)
      // What was held for want of it may go through now.
      asked = new Set()
    }
    for (const key of settled.asked) asked.add(key)
    await show()
    for (const give of answers) give()
  }

  const backOff = (tries: number) =>
    Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (tries - 1)) * (0.5 + ports.chance() / 2)
  const pauseFor = (pause: NonNullable<Settled['pause']>) => {
    // What is written while it waits is tried at once, and makes the wait no longer.
    if (now() >= raiseAt) failures++
    const wait = Math.max(backOff(failures), (pause.afterS ?? 0) * 1000)
    raiseAt = Math.max(raiseAt, now() + wait)
    // Without a session nothing is sent until there is one: that is an occasion of its own.
    if (pause.why === 'later') notBefore = now() + wait
    if (pause.why !== 'signed-out') setTimer(wait)
    tellLanes()
  }
  const setTimer = (ms: number) => {
    cancelTimer()
    if (!isStopped) cancelTimer = ports.setTimer(() => void occasion(), ms)
  }
  const setPhotoTimer = (ms: number) => {
    cancelPhotoTimer()
    if (!isStopped) cancelPhotoTimer = ports.setTimer(() => void drain(), ms)
  }

  /** Entries and documents, one request after the other. */
  const sendMain = async () => {
    for (;;) {
      const accountId = ports.accountId()
      if (accountId === null || isStopped) return
      if (now() < notBefore) return setTimer(notBefore - now())
      const all = await read()
      const blocked = heldByNeeds(all)
      await replace(blocked)
      if (blocked.length > 0) await show()
      const send = nextSend(blocked.length > 0 ? kept.items() : all, {
        accountId,
        asked,
        mostEntries,
        mostBytes,
      })
      if (!send) return
      if (send.kind === 'document' && !send.item.isTried)
        await update(send.item.key, (before) =>
          before?.kind === 'document' ? { ...before, isTried: true } : before,
        )
      const reply = await ports.transmit(send, () => undefined)
      const settled = settle(send, reply)
      // No answer may mean that the line was too slow for so much.
      if (reply.kind === 'none') mostBytes = Math.max(LEAST_BYTES, mostBytes / 4)
      if (settled.pause) return pauseFor(settled.pause)
      failures = 0
      raiseAt = 0
      mostEntries = settled.mostEntries ?? Math.min(Number.POSITIVE_INFINITY, mostEntries * 2)
      mostBytes = Math.min(MOST_BYTES, mostBytes * 2)
      await apply(send, settled, reply)
      tellLanes()
      ports.tellOthers()
    }
  }

  const nextPhoto = (ready: readonly PhotoItem[]) =>
    ready.find(({ key }) => (photoPauses.get(key)?.until ?? 0) <= now())
  const pausePhoto = (key: string, { why, afterS }: NonNullable<Settled['pause']>) => {
    const tries = (photoPauses.get(key)?.failures ?? 0) + 1
    const wait = Math.max(backOff(tries), (afterS ?? 0) * 1000)
    photoPauses.set(key, { until: now() + wait, failures: tries, why: why === 'later' ? why : 'away' })
    tellLanes()
  }
  /** Photos, beside all else: what keeps one keeps that one, and what shows it. */
  const sendPhotos = async () => {
    for (;;) {
      const accountId = ports.accountId()
      if (accountId === null || isStopped) return
      const ready = readyPhotos(await read(), { accountId, asked })
      const item = nextPhoto(ready)
      if (!item) {
        const next = Math.min(...ready.map(({ key }) => photoPauses.get(key)!.until))
        if (ready.length > 0) setPhotoTimer(next - now())
        return
      }
      const { key } = item
      const send: Send = { kind: 'photo', gardenId: item.gardenId, item }
      const reply = await ports.transmit(send, (bytes) => {
        photosSent.set(key, bytes)
        tellLanes()
      })
      const settled = settle(send, reply)
      if (settled.pause?.why === 'signed-out') return
      if (settled.pause) {
        pausePhoto(key, settled.pause)
        // Where there is no line the next would fare no better; it has its turn before this one is tried again.
        if (settled.pause.why === 'away') return setPhotoTimer(FIRST_PAUSE_MS)
        continue
      }
      photoPauses.delete(key)
      photosSent.delete(key)
      await apply(send, settled, reply)
      tellLanes()
      ports.tellOthers()
      // What waited for it.
      main.kick()
    }
  }

  const whenBroken = () => {
    kept.tellStorage()
    setTimer(FIRST_PAUSE_MS)
  }
  const main = createLane(async () => {
    await sendMain().catch(whenBroken)
    answerWaiting()
  })
  const photos = createLane(() => sendPhotos().catch(whenBroken))
  const lanes = [main, photos]
  let isSending = false
  let isAskingLock = false
  let isAgain = false

  /** Under the lock, until no lane has anything more to do. */
  const sendAll = async () => {
    isSending = true
    try {
      for (const lane of lanes) lane.kick()
      for (;;) {
        const under = lanes.flatMap((lane) => lane.running() ?? [])
        if (under.length === 0) return
        await Promise.race(under)
      }
    } finally {
      isSending = false
    }
  }
  const drain = async (): Promise<void> => {
    if (isSending) return lanes.forEach((lane) => lane.kick())
    if (isAskingLock) {
      isAgain = true
      return
    }
    isAskingLock = true
    try {
      do {
        isAgain = false
        const isOurs = await ports.lock(sendAll)
        // Another window is at it: it may close before it comes to ours.
        if (!isOurs) {
          setTimer(FIRST_PAUSE_MS)
          answerWaiting()
        }
      } while (isAgain && !isStopped)
    } finally {
      isAskingLock = false
    }
    if (failures === 0 && kept.items().some(({ state }) => state.is === 'held')) setTimer(ASK_AGAIN_MS)
  }
  /** Whoever has saved and waits to hear what came of it hears that it waits. */
  const answerWaiting = () => {
    for (const saveId of [...waiters.keys()]) {
      const own = kept
        .items()
        .find((item) => item.kind === 'document' && item.saves.some((save) => save?.saveId === saveId))
      // One of which there is no trace was sent by another window.
      if (!own) answer(saveId, 'saved', null, null)
      else if (failures > 0 || own.state.is === 'held' || ports.accountId() === null)
        answer(saveId, 'waiting', null, own)
    }
  }
  const occasion = async () => {
    asked = new Set()
    await drain()
  }

  return {
    start: async () => {
      await show()
      await occasion()
    },
    wake: () => {
      // A server that has asked for a moment has it, whoever looks at this window meanwhile.
      if (now() >= notBefore) {
        raiseAt = 0
        failures = 0
      }
      for (const [key, { why }] of photoPauses) if (why === 'away') photoPauses.delete(key)
      void occasion()
    },
    answered: () => {
      notBefore = 0
      raiseAt = 0
      failures = 0
      photoPauses.clear()
      void occasion()
    },
    reload: show,
    items: kept.items,
    add: async (news) => {
      await kept.add(news)
      ports.tellOthers()
      void drain()
    },
    addSave: async (item) => {
      const [{ saveId }] = item.saves
      const settled = new Promise<{ outcome: Outcome; reply: Reply | null; item: Item | null }>((resolve) => {
        waiters.set(saveId, resolve)
        ports.setTimer(() => answer(saveId, 'waiting', null, item), PATIENCE_MS)
      })
      await update(item.key, (before) => {
        if (before?.kind !== 'document') return item
        // What makes way for this one has become a part of it.
        const replaced = before.isTried ? before.saves[1] : before.saves[0]
        if (replaced) answer(replaced.saveId, 'waiting', null, before)
        return withSave(before, item)
      })
      await show()
      ports.tellOthers()
      void drain()
      return settled
    },
    change: async (key, change) => {
      await update(key, (before) => before && change(before))
      await show()
      ports.tellOthers()
      asked.delete(key)
      void drain()
    },
    stop: () => {
      isStopped = true
      cancelTimer()
      cancelPhotoTimer()
    },
  }
}
