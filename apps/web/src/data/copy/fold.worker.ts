import type { JournalPage } from '@klados/contract'
import { request } from '../request.ts'
import { greatestId } from '../sync/clock.ts'
import { copyStore } from './copy-store.ts'
import type { FoldedUp } from './copy-store.ts'
import { FOLD_VERSION, foldPart } from './part-fold.ts'

export interface FoldJob {
  readonly accountId: string
  readonly gardenId: string
  /** Whether the server is asked first for what is not here yet. */
  readonly isReadFirst: boolean
}
/** What was folded, and the greatest id that was read; `null` where this device or the server would not. */
export type FoldAnswer = (FoldedUp & { readonly greatestId: string | null }) | null

/** One window reads and folds at a time; what it has done, the next finds done. */
self.onmessage = async ({ data }: MessageEvent<FoldJob>) => {
  const answer = await navigator.locks.request('klados-fold', () => work(data)).catch((): FoldAnswer => null)
  self.postMessage(answer)
}

async function work({ accountId, gardenId, isReadFirst }: FoldJob): Promise<FoldAnswer> {
  const greatest = isReadFirst ? await readAll(accountId, gardenId) : null
  return { greatestId: greatest, ...(await copyStore.foldUp(accountId, gardenId, FOLD_VERSION, foldPart)) }
}

/** Reads the journal onto the device, from where it ends there to where the server's does. */
async function readAll(accountId: string, gardenId: string): Promise<string | null> {
  let greatest: string | null = null
  const read = (after: number) => request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${after}`)
  let coming = read(await copyStore.last(accountId, gardenId))
  for (;;) {
    const page = await coming
    const [first] = page.entries
    if (!first) return greatest
    // The next page is on its way while this one is kept.
    const isLast = page.last >= page.head
    if (!isLast) coming = read(page.last)
    await copyStore.keepEntries(accountId, gardenId, first.seq - 1, page.entries)
    greatest = greatestId(
      page.entries.map(({ id }) => id),
      greatest,
    )
    if (isLast) return greatest
  }
}
