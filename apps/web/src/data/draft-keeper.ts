/** What a draft is of, as part of its address: `frame 0195…` or `place 0195…`. */
export type DraftKind = 'frame' | 'place'

interface Kept<T> {
  /** Another at each writing: tells whether a window has seen what it is about to write over. */
  readonly mark: string
  /** The marks of the writings before it, latest first, as far as its window knew them. */
  readonly after?: readonly string[]
  readonly value: T
}

export interface DraftStorage {
  readonly getItem: (key: string) => string | null
  readonly setItem: (key: string, value: string) => void
  readonly removeItem: (key: string) => void
  readonly keys: () => readonly string[]
}

export interface DraftKeeper {
  readonly read: (kind: DraftKind, id: string) => unknown
  readonly readAll: (kind: DraftKind) => Readonly<Record<string, unknown>>
  /** Writes it down after a pause; the last value within the pause counts. */
  readonly write: (kind: DraftKind, id: string, value: unknown) => void
  /** It is saved, or given up: forgotten unless another window has gone on with it. */
  readonly forget: (kind: DraftKind, id: string) => void
  /** Writes what waits for its pause, at once: the page is about to go. */
  readonly flush: () => void
  /** Whether something of it has not been written down yet. */
  readonly isUnwritten: (kind: DraftKind, id: string) => boolean
  /** Takes note of what another window has written under an address; null when it is none of ours. */
  readonly hear: (key: string) => { kind: DraftKind; id: string; value: unknown } | null
}

export interface DraftEvents {
  /**
   * Another window wrote the same draft meanwhile: what stands there stays, and `own` is what was not written
   * over it or was written over.
   */
  readonly onOverlap: (kind: DraftKind, id: string, own: unknown, theirs: unknown) => void
  readonly onFull: () => void
  readonly setTimer: (work: () => void, ms: number) => () => void
}

const PAUSE_MS = 400
/** So many writings back a window can still tell that another has gone on from its own. */
const MARKS_KEPT = 40
const PREFIX = 'klados.draft'

/**
 * Drafts of one account on this device, each under an address of its own, so that windows do not write over
 * each other's.
 */
export function createDraftKeeper(
  storage: DraftStorage,
  accountId: string,
  events: DraftEvents,
): DraftKeeper {
  const prefix = `${PREFIX}.${accountId}.`
  const addressOf = (kind: DraftKind, id: string) => `${prefix}${kind} ${id}`
  const marks = new Map<string, string | null>()
  const trails = new Map<string, readonly string[]>()
  /** What this window wrote last, until it hears what another made of it. */
  const own = new Map<string, { mark: string; value: unknown }>()
  const pending = new Map<string, { kind: DraftKind; id: string; value: unknown }>()
  let cancel: (() => void) | null = null
  const stored = (address: string): Kept<unknown> | null => {
    try {
      return JSON.parse(storage.getItem(address) ?? 'null') as Kept<unknown> | null
    } catch {
      return null
    }
  }
  const writeDown = (
    address: string,
    { kind, id, value }: { kind: DraftKind; id: string; value: unknown },
  ) => {
    const there = stored(address)
    const seen = marks.get(address) ?? null
    if (there && there.mark !== seen) {
      marks.set(address, there.mark)
      return events.onOverlap(kind, id, value, there.value)
    }
    const mark = Math.random().toString(36).slice(2)
    const after = trails.get(address) ?? []
    try {
      storage.setItem(address, JSON.stringify({ mark, after, value } satisfies Kept<unknown>))
      marks.set(address, mark)
      trails.set(address, [mark, ...after].slice(0, MARKS_KEPT))
      own.set(address, { mark, value })
    } catch {
      // It waits for room, here.
      pending.set(address, { kind, id, value })
      events.onFull()
    }
  }
  const flush = () => {
    cancel?.()
    cancel = null
    const waiting = [...pending]
    pending.clear()
    for (const [address, draft] of waiting) writeDown(address, draft)
  }
  const take = (address: string) => {
    const there = stored(address)
    marks.set(address, there?.mark ?? null)
    trails.set(address, there ? [there.mark, ...(there.after ?? [])].slice(0, MARKS_KEPT) : [])
    return there
  }
  return {
    flush,
    read: (kind, id) => {
      const address = addressOf(kind, id)
      return pending.get(address)?.value ?? take(address)?.value
    },
    readAll: (kind) =>
      Object.fromEntries(
        storage
          .keys()
          .filter((key) => key.startsWith(`${prefix}${kind} `))
          .map((key) => [key.slice(prefix.length + kind.length + 1), take(key)?.value] as const)
          .filter(([, value]) => value !== undefined),
      ),
    write: (kind, id, value) => {
      pending.set(addressOf(kind, id), { kind, id, value })
      cancel ??= events.setTimer(flush, PAUSE_MS)
    },
    forget: (kind, id) => {
      const address = addressOf(kind, id)
      pending.delete(address)
      const there = stored(address)
      if (there && there.mark !== marks.get(address)) return
      marks.delete(address)
      trails.delete(address)
      own.delete(address)
      storage.removeItem(address)
    },
    isUnwritten: (kind, id) => pending.has(addressOf(kind, id)),
    hear: (key) => {
      if (!key.startsWith(prefix)) return null
      const [kind, id] = key.slice(prefix.length).split(' ') as [DraftKind, string]
      // What is being typed here is not swept away; at its writing both are kept.
      if (pending.has(key)) return null
      const mine = own.get(key)
      const there = take(key)
      if (mine && there && there.mark !== mine.mark) {
        own.delete(key)
        // Written in the same moment as ours, unseen by either: theirs stands there, ours would be lost.
        if (there.after && !there.after.includes(mine.mark)) {
          events.onOverlap(kind, id, mine.value, there.value)
          return null
        }
      }
      return { kind, id, value: there?.value }
    },
  }
}

/** The browser's own storage; one that is forbidden keeps nothing and says so at the first writing. */
export function browserStorage(): DraftStorage {
  return {
    getItem: (key) => {
      try {
        return localStorage.getItem(key)
      } catch {
        return null
      }
    },
    setItem: (key, value) => localStorage.setItem(key, value),
    removeItem: (key) => {
      try {
        localStorage.removeItem(key)
      } catch {
        // Nothing can be in there.
      }
    },
    keys: () => {
      try {
        return Object.keys(localStorage)
      } catch {
        return []
      }
    },
  }
}
