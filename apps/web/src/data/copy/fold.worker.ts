import type { JournalPage, StoredEntry } from '@klados/contract'
import { grouped, plantKey } from '../parts.ts'
import { request } from '../request.ts'
import { greatestId } from '../sync/clock.ts'
import { copyStore } from './copy-store.ts'
import type { FoldedUp } from './copy-store.ts'
import { foldPart } from './part-fold.ts'

export interface FoldJob {
  readonly accountId: string
  readonly gardenId: string
  /** Whether the server is asked first for what is not here yet. */
  readonly isReadFirst: boolean
}

/** What was folded, first; then whether it lies on the device. `null` where the device or the server would not. */
export type FoldAnswer =
  | { readonly is: 'folded'; readonly folded: FoldedUp | null; readonly greatestId: string | null }
  | { readonly is: 'kept'; readonly isKept: boolean }

/** Of more entries not all are held at once: they go to the device page by page, and are folded from there. */
const AT_ONCE = 300_000

const tell = (answer: FoldAnswer) => self.postMessage(answer)

/** One window reads and folds at a time; what it has done, the next finds done. */
self.onmessage = async ({ data }: MessageEvent<FoldJob>) => {
  let isTold = false
  const told = (folded: FoldedUp | null, greatest: string | null) => {
    isTold = true
    tell({ is: 'folded', folded, greatestId: greatest })
  }
  try {
    await navigator.locks.request('klados-fold', () =>
      data.isReadFirst ? readAll(data, told) : fold(data, told),
    )
    tell({ is: 'kept', isKept: true })
  } catch {
    if (!isTold) told(null, null)
    tell({ is: 'kept', isKept: false })
  }
}

type Told = (folded: FoldedUp | null, greatestId: string | null) => void

async function fold(
  { accountId, gardenId, isReadFirst }: FoldJob,
  told: Told,
  greatest: string | null = null,
): Promise<void> {
  const changed = await copyStore.foldUp(accountId, gardenId, foldPart)
  if (!isReadFirst) return told(changed, greatest)
  // Another window may have folded most of it before: whoever begins with it wants all.
  const { foldedTo, folds } = await copyStore.journal(accountId, gardenId, 0)
  told({ upTo: foldedTo, folds }, greatest)
}

/**
 * Reads the journal from where it ends on this device to where the server's does. A first reading is folded before it is
 * kept: nobody waits for the device to have written what the window does not need yet.
 */
async function readAll(job: FoldJob, told: Told): Promise<void> {
  const { accountId, gardenId } = job
  const from = await copyStore.last(accountId, gardenId)
  const pages: (readonly StoredEntry[])[] = []
  let greatest: string | null = null
  let isHeld = from === 0
  for await (const { entries, head } of pagesAfter(gardenId, from)) {
    greatest = greatestId(
      entries.map(({ id }) => id),
      greatest,
    )
    isHeld &&= head <= AT_ONCE
    if (isHeld) pages.push(entries)
    else await copyStore.keepEntries(accountId, gardenId, entries[0]!.seq - 1, entries)
  }
  if (!isHeld) return fold(job, told, greatest)
  const all = pages.flat()
  const folds = [...grouped(all, plantKey)].map(([part, entries]) => foldPart(part, entries))
  const folded = { upTo: all.at(-1)?.seq ?? 0, folds }
  told(folded, greatest)
  for (const page of pages) await copyStore.keepEntries(accountId, gardenId, page[0]!.seq - 1, page)
  await copyStore.keepFolds(accountId, gardenId, folded)
}

/** Pages of the journal after a number; the next is on its way while one is taken. */
async function* pagesAfter(gardenId: string, from: number): AsyncGenerator<JournalPage> {
  const read = (after: number) => request<JournalPage>('GET', `/gardens/${gardenId}/journal?after=${after}`)
  let coming: Promise<JournalPage> | null = read(from)
  while (coming) {
    const page: JournalPage = await coming
    if (page.entries.length === 0) return
    coming = page.last < page.head ? read(page.last) : null
    yield page
  }
}
