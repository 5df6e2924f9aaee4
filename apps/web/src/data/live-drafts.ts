import type { FrameBody } from '@klados/contract'
import { upcastBody } from '@klados/contract/upcasts'
import { v7 as uuidv7 } from 'uuid'
import { browserStorage, createDraftKeeper } from './draft-keeper.ts'
import type { DraftEvents, DraftKeeper } from './draft-keeper.ts'
import { changed, heard, loaded } from './drafts.ts'
import type { FrameDraft } from './drafts.ts'
import type { AppStore } from './store.ts'
import { storageFailed } from './sync/slice.ts'

/** Drafts of all accounts of this device in one value, until release 3. */
const EARLIER_DRAFTS_KEY = 'klados.frame-drafts'

let keeper: DraftKeeper | null = null
/** The drafts of whoever is signed in; null while nobody is. */
export const draftKeeper = (): DraftKeeper | null => keeper

/** Writes down what waits for its pause: the page is about to go. */
export const flushDrafts = (): void => keeper?.flush()

/** Keeps the drafts of the store and those of the browser's storage the same, for whoever is signed in. */
export function watchDrafts(
  store: AppStore,
  accountId: () => string | null,
  setTimer: DraftEvents['setTimer'],
): void {
  let current: string | null = null
  let written: Readonly<Record<string, FrameDraft>> = {}
  const look = () => {
    const id = accountId()
    if (id !== current) {
      keeper?.flush()
      current = id
      keeper = id === null ? null : openDrafts(store, id, setTimer)
      written = keeper ? readDrafts(keeper) : {}
      store.dispatch(loaded(written))
      return
    }
    const { drafts } = store.getState()
    if (drafts === written || !keeper) return
    const before = written
    written = drafts
    for (const [frameId, draft] of Object.entries(drafts))
      if (draft !== before[frameId] && draft !== taken.get(frameId)) keeper.write('frame', frameId, draft)
    for (const frameId of Object.keys(before)) if (!(frameId in drafts)) keeper.forget('frame', frameId)
  }
  addEventListener('storage', ({ key }) => hearDraft(store, key))
  store.subscribe(look)
  look()
}

/** Drafts as they were heard from another window: not to be written back as if they were this one's. */
const taken = new Map<string, FrameDraft>()

function openDrafts(store: AppStore, accountId: string, setTimer: DraftEvents['setTimer']): DraftKeeper {
  const opened = createDraftKeeper(browserStorage(), accountId, {
    setTimer,
    onFull: () => store.dispatch(storageFailed()),
    onOverlap: (kind, id, own, theirs) => {
      if (kind !== 'frame') return
      // Two windows drew on one frame: both drawings stay, this one as a variant beside the other.
      const { body } = own as FrameDraft
      const copyId = uuidv7()
      const copy: FrameBody = { ...body, name: `${body.name} (2)`.slice(-80) }
      store.dispatch(
        changed({ draft: { frameId: copyId, basedOn: 0, body: copy }, body: copy, isContinued: false }),
      )
      hearInto(store, id, theirs)
    },
  })
  moveEarlierDrafts(opened)
  return opened
}

function hearDraft(store: AppStore, key: string | null): void {
  const news = key === null ? null : (keeper?.hear(key) ?? null)
  if (news?.kind === 'frame') hearInto(store, news.id, news.value)
}

function hearInto(store: AppStore, frameId: string, value: unknown): void {
  const draft = readDraft(value)
  if (draft) taken.set(frameId, draft)
  store.dispatch(heard({ frameId, draft }))
}

function readDrafts(opened: DraftKeeper): Record<string, FrameDraft> {
  return Object.fromEntries(
    Object.entries(opened.readAll('frame')).flatMap(([id, value]) => {
      const draft = readDraft(value)
      return draft ? [[id, draft]] : []
    }),
  )
}

/** A draft of this or an earlier release; null for what is none. */
function readDraft(value: unknown): FrameDraft | null {
  const draft = value as FrameDraft | undefined
  if (typeof draft?.body?.design?.pattern !== 'object') return null
  const up = (body: unknown) => upcastBody('frames', body) as FrameBody
  return {
    ...draft,
    body: up(draft.body),
    past: (draft.past ?? []).map(up),
    future: (draft.future ?? []).map(up),
  }
}

function moveEarlierDrafts(opened: DraftKeeper): void {
  const storage = browserStorage()
  try {
    const earlier = JSON.parse(storage.getItem(EARLIER_DRAFTS_KEY) ?? '{}') as Record<string, unknown>
    for (const [frameId, draft] of Object.entries(earlier))
      if (opened.read('frame', frameId) === undefined) opened.write('frame', frameId, draft)
    opened.flush()
    // Without room for them where they belong, they stay where they were.
    if (!Object.keys(earlier).some((frameId) => opened.isUnwritten('frame', frameId)))
      storage.removeItem(EARLIER_DRAFTS_KEY)
  } catch {
    // No drafts of before can be read; they stay where they are.
  }
}
