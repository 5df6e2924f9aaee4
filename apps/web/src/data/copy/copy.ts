import type { Session } from '@klados/contract'
import type { ThunkAction, Action } from '@reduxjs/toolkit'
import { api, atRest, rememberSession } from '../api.ts'
import type { WithApi } from '../api.ts'
import type { JournalCopy } from '../desk.ts'
import type { AppStore } from '../store.ts'
import { COPIED_ACCOUNT_KEY, copiedAccount } from './account-key.ts'
import { copyStore } from './copy-store.ts'
import type { FoldedUp } from './copy-store.ts'
import { AREAS, pathOf } from './paths.ts'
import { keepPhotos } from './photos.ts'
import { SMALL } from './fold-rules.ts'
import type { FoldAnswer, FoldJob, SeenNow } from './fold.worker.ts'

const SESSION = '/session'

/** Before anything is drawn: who was here last, so that their garden opens before the server has answered, or without it. */
export async function restoreSession(store: AppStore): Promise<void> {
  const accountId = copiedAccount()
  if (accountId === null) return
  try {
    const [session] = await copyStore.answers(accountId, [SESSION])
    if (session) {
      rememberSession(session as Session)
      await store.dispatch(api.util.upsertQueryData('session', undefined, session as Session))
    }
    // Asked all the same: it may be over, or belong to somebody else by now.
    void store.dispatch(api.endpoints.session.initiate(undefined, { forceRefetch: true }))
  } catch {
    // A device that keeps nothing opens with the server alone.
  }
}

/** A garden's documents from the copy, then from the server; resolves when what is here can be shown. */
export const openCopy =
  (gardenId: string): ThunkAction<Promise<void>, WithApi, unknown, Action> =>
  async (dispatch) => {
    const accountId = copiedAccount()
    try {
      const answers =
        accountId === null
          ? []
          : await copyStore.answers(
              accountId,
              AREAS.map((area) => pathOf(area, gardenId)),
            )
      await Promise.all(
        AREAS.map((area, i) =>
          answers[i] === undefined
            ? undefined
            : dispatch(api.util.upsertQueryData(area as 'places', gardenId, atRest(answers[i]) as never)),
        ),
      )
    } catch {
      // Then the server's own answers are waited for.
    }
    for (const area of AREAS)
      void dispatch(api.endpoints[area as 'places'].initiate(gardenId, { forceRefetch: true }))
  }

/** Asks this device, if somebody's copy lies on it; `null` where there is none, or it cannot be read. */
async function fromCopy<T>(ask: (accountId: string) => Promise<T>): Promise<T | null> {
  const accountId = copiedAccount()
  return accountId === null ? null : ask(accountId).catch(() => null)
}

/** What a thread still writes onto this device, by garden: whoever asks for what it holds waits for that. */
const writing = new Map<string, Promise<void>>()

/** Threads at work; none of them goes on for whoever is not here any more. */
const threads = new Set<() => void>()

/** Starts a thread; `begun` when what it was given is kept, `folded` what it has folded, `null` where it has not. */
function startThread(job: FoldJob): { begun: Promise<void>; folded: Promise<FoldedUp | null> } {
  let thread: Worker | null = null
  let isBegun: () => void
  let isFolded: (folded: FoldedUp | null) => void
  const begun = new Promise<void>((resolve) => (isBegun = resolve))
  const folded = new Promise<FoldedUp | null>((resolve) => (isFolded = resolve))
  const see = () => {
    thread?.postMessage({ is: 'seen', isSeen: document.visibilityState !== 'hidden' } satisfies SeenNow)
  }
  const end = () => {
    thread?.terminate()
    threads.delete(end)
    document.removeEventListener('visibilitychange', see)
    isBegun()
    isFolded(null)
  }
  threads.add(end)
  try {
    thread = new Worker(new URL('./fold.worker.ts', import.meta.url), { type: 'module' })
    thread.onerror = end
    thread.onmessage = ({ data }: MessageEvent<FoldAnswer>) => {
      if (data.is === 'begun') isBegun()
      else if (data.is === 'folded') isFolded(data.folded)
      else end()
    }
    thread.postMessage(job)
    document.addEventListener('visibilitychange', see)
    see()
  } catch {
    end()
  }
  return { begun, folded }
}

const fromWritten = async <T>(
  gardenId: string,
  ask: (accountId: string) => Promise<T>,
): Promise<T | null> => {
  await writing.get(gardenId)
  return fromCopy(ask)
}

/** Gardens whose history is on its way here, as far as this window has to do with it. */
const filling = new Set<string>()

/** A device that keeps nothing reads all of it from the server each time. */
export const journalCopy: JournalCopy = {
  open: (gardenId) => fromCopy((accountId) => copyStore.journal(accountId, gardenId, SMALL)),
  keep: async (gardenId, after, entries) => {
    if (entries.length > 0)
      await fromWritten(gardenId, (accountId) => copyStore.keepEntries(accountId, gardenId, after, entries))
  },
  place: (gardenId, placeId, upTo) =>
    fromWritten(gardenId, (accountId) => copyStore.place(accountId, gardenId, placeId, upTo)),
  parts: (gardenId, parts, upTo) =>
    fromWritten(gardenId, (accountId) => copyStore.parts(accountId, gardenId, parts, upTo)),
  foldUp: (gardenId) => fromCopy((accountId) => startThread({ is: 'fold', accountId, gardenId }).folded),
  fill: async (gardenId, standing) => {
    await fromCopy(async (accountId) => {
      if (filling.has(gardenId)) return
      if (!standing && !(await copyStore.gap(accountId, gardenId))) return
      filling.add(gardenId)
      const { begun, folded } = startThread({ is: 'fill', accountId, gardenId, standing })
      writing.set(gardenId, begun)
      await folded
      filling.delete(gardenId)
    })
  },
  drop: async (gardenId) => {
    await fromWritten(gardenId, (accountId) => copyStore.dropGarden(accountId, gardenId))
  },
}

const KEEP_AFTER_MS = 300

/**
 * Keeps what the screens are told, as it changes: answers of the server and what was saved from here alike. Drops a
 * garden's copy when its garden is not one's own any more.
 */
export function watchCopy(store: AppStore, openGardenId: () => string | null): void {
  const kept = new Map<string, unknown>()
  let photographed: unknown
  let timer: ReturnType<typeof setTimeout> | undefined
  const look = () => {
    timer = undefined
    const state = store.getState()
    const session = api.endpoints.session.select(undefined)(state).data
    const accountId = session?.account?.id
    if (session && !accountId) for (const end of threads) end()
    if (!session || !accountId || session.isExpired || session.other !== undefined) return
    localStorage.setItem(COPIED_ACCOUNT_KEY, accountId)
    const keep = (path: string, gardenId: string | null, data: unknown) => {
      const key = `${accountId} ${path}`
      if (data === undefined || kept.get(key) === data) return
      kept.set(key, data)
      // A full or forbidden disk is told of by the outbox; a copy that is missing is only slower.
      copyStore.keepAnswer(accountId, path, gardenId, data).catch(() => undefined)
    }
    keep(SESSION, null, session)
    const gardenId = openGardenId()
    if (gardenId === null) return
    if (!session.memberships.some((one) => one.gardenId === gardenId)) {
      copyStore.dropGarden(accountId, gardenId).catch(() => undefined)
      return
    }
    const places = api.endpoints.places.select(gardenId)(state).data
    if (places && places !== photographed) {
      photographed = places
      const photos = places.flatMap(({ isRemoved, body }) =>
        isRemoved || !body.photo ? [] : [body.photo.fileId],
      )
      // Asked for again with the next change of a place.
      void keepPhotos(gardenId, photos).catch(() => undefined)
    }
    for (const area of AREAS)
      keep(pathOf(area, gardenId), gardenId, api.endpoints[area as 'places'].select(gardenId)(state).data)
  }
  const soon = () => {
    timer ??= setTimeout(look, KEEP_AFTER_MS)
  }
  store.subscribe(soon)
  // At once: the journal's first page is read now, and kept for whoever this is.
  look()
}
