import type { Garden, JournalPage, Plant, Standing, StoredEntry } from '@klados/contract'
import { foldPart, keptFold } from '@klados/core/part-fold'
import type { BriefGround, KeptFold } from '@klados/core/part-fold'
import { hemisphereAt } from '@klados/core/season'
import { request } from '../request.ts'
import { copyStore } from './copy-store.ts'
import { pathOf } from './paths.ts'
import type { FoldedUp } from './copy-store.ts'

/** To fold what came; or to keep what a garden was begun with, where it was, and then to bring its history. */
export type FoldJob = { readonly accountId: string; readonly gardenId: string } & (
  | { readonly is: 'fold' }
  | { readonly is: 'fill'; readonly standing: Standing | null }
)

export type FoldAnswer =
  /** `null` where the device would not, or has not all that is to be folded. */
  | { readonly is: 'folded'; readonly folded: FoldedUp | null }
  | { readonly is: 'begun' }
  | { readonly is: 'over' }

/** Not while one waits for the first screen. */
const FILL_AFTER_MS = 3000

/** Told whenever the window is hidden or shown: history can wait till somebody looks, and a battery lasts longer. */
export interface SeenNow {
  readonly is: 'seen'
  readonly isSeen: boolean
}

const tell = (answer: FoldAnswer) => self.postMessage(answer)

let isSeen = true
let onSeen: (() => void) | null = null
const whileSeen = (): Promise<void> =>
  isSeen ? Promise.resolve() : new Promise((resolve) => (onSeen = resolve))

self.onmessage = ({ data }: MessageEvent<FoldJob | SeenNow>) => {
  if (data.is !== 'seen') return void work(data)
  isSeen = data.isSeen
  if (isSeen) onSeen?.()
}

/** One window folds or brings a page at a time; what it has done, the next finds done. */
const alone = <T>(gardenId: string, what: () => Promise<T>): Promise<T> =>
  navigator.locks.request(`klados-fold ${gardenId}`, what) as Promise<T>

async function work(data: FoldJob): Promise<void> {
  const { accountId, gardenId } = data
  try {
    if (data.is === 'fill' && data.standing) {
      const { upTo, folds } = data.standing
      await copyStore.begin(accountId, gardenId, { upTo, folds })
    }
    tell({ is: 'begun' })
    if (data.is === 'fill') {
      await fill(accountId, gardenId)
      await alone(gardenId, () => renew(accountId, gardenId))
    } else
      await alone(gardenId, async () => tell({ is: 'folded', folded: await foldUp(accountId, gardenId) }))
  } catch {
    // Without the device or the server; tried again when the garden is next opened or the server is back.
  }
  tell({ is: 'over' })
}

async function foldUp(accountId: string, gardenId: string): Promise<FoldedUp | null> {
  const groundOf = await grounds(accountId, gardenId)
  const fold = (part: string, entries: readonly StoredEntry[]): KeptFold =>
    keptFold(foldPart(part, entries), groundOf(part))
  return copyStore.foldUp(accountId, gardenId, fold)
}

/** With what a part's days are reckoned, by the documents as they were last heard. */
async function grounds(accountId: string, gardenId: string): Promise<(part: string) => BriefGround> {
  const [garden, plants] = (await copyStore.answers(
    accountId,
    (['garden', 'plants'] as const).map((area) => pathOf(area, gardenId)),
  )) as [Garden | undefined, readonly Plant[] | undefined]
  const hemisphere = hemisphereAt(garden?.latitudeDeg)
  const kinds = new Map(plants?.map(({ id, body }) => [id, body.kindId]))
  return (part) => ({ kindId: kinds.get(part) ?? null, hemisphere })
}

/** Reads the history of a garden that was begun from what stands, page by page; none while its window is hidden. */
async function fill(accountId: string, gardenId: string): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, FILL_AFTER_MS))
  let from = -1
  for (let goesOn = true; goesOn; ) {
    await whileSeen()
    goesOn = await alone(gardenId, async () => {
      const gap = await copyStore.gap(accountId, gardenId)
      // What the device would not keep is not asked for again and again.
      if (!gap || gap.after === from) return false
      from = gap.after
      const page = await request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${from}`)
      await copyStore.keepEntries(accountId, gardenId, from, page.entries)
      return true
    })
  }
}

/** Folds by this release's rules what lies here by another's, once what has come since is here too. */
async function renew(accountId: string, gardenId: string): Promise<void> {
  for (let last = await copyStore.stale(accountId, gardenId); last !== null; ) {
    const { entries } = await request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${last}`)
    if (entries.length === 0) return void (await foldUp(accountId, gardenId))
    await copyStore.keepEntries(accountId, gardenId, last, entries)
    last = entries.at(-1)!.seq
  }
}
