import type { Session } from '@klados/contract'
import type { ThunkAction, Action } from '@reduxjs/toolkit'
import { api, rememberSession } from '../api.ts'
import type { WithApi } from '../api.ts'
import type { JournalCopy } from '../desk.ts'
import type { AppStore } from '../store.ts'
import { COPIED_ACCOUNT_KEY } from './account-key.ts'
import { copyStore } from './copy-store.ts'

/** What is kept of a garden beside its journal: the queries that the screens ask. */
const AREAS = ['garden', 'places', 'frames', 'plants', 'stores'] as const
const SESSION = '/session'
const pathOf = (area: (typeof AREAS)[number], gardenId: string) =>
  area === 'garden' ? `/gardens/${gardenId}` : `/gardens/${gardenId}/${area}`

/** Whose copy lies on this device: whoever was signed in here last and did not sign out. */
const copiedAccount = (): string | null => localStorage.getItem(COPIED_ACCOUNT_KEY)

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
            : dispatch(api.util.upsertQueryData(area as 'places', gardenId, answers[i] as never)),
        ),
      )
    } catch {
      // Then the server's own answers are waited for.
    }
    for (const area of AREAS)
      void dispatch(api.endpoints[area as 'places'].initiate(gardenId, { forceRefetch: true }))
  }

/** A device that keeps nothing reads all of it from the server each time. */
export const journalCopy: JournalCopy = {
  entries: async (gardenId) => {
    const accountId = copiedAccount()
    return accountId === null ? [] : copyStore.entries(accountId, gardenId).catch(() => [])
  },
  keep: async (gardenId, after, entries) => {
    const accountId = copiedAccount()
    if (accountId === null || entries.length === 0) return
    await copyStore.keepEntries(accountId, gardenId, after, entries).catch(() => undefined)
  },
  drop: async (gardenId) => {
    const accountId = copiedAccount()
    if (accountId !== null) await copyStore.dropGarden(accountId, gardenId).catch(() => undefined)
  },
}

const KEEP_AFTER_MS = 300

/**
 * Keeps what the screens are told, as it changes: answers of the server and what was saved from here alike. Drops a
 * garden's copy when its garden is not one's own any more.
 */
export function watchCopy(store: AppStore, openGardenId: () => string | null): void {
  const kept = new Map<string, unknown>()
  let timer: ReturnType<typeof setTimeout> | undefined
  const look = () => {
    timer = undefined
    const state = store.getState()
    const session = api.endpoints.session.select(undefined)(state).data
    const accountId = session?.account?.id
    if (!session || !accountId || session.isExpired) return
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
    for (const area of AREAS)
      keep(pathOf(area, gardenId), gardenId, api.endpoints[area as 'places'].select(gardenId)(state).data)
  }
  const soon = () => {
    timer ??= setTimeout(look, KEEP_AFTER_MS)
  }
  store.subscribe(soon)
  soon()
}
