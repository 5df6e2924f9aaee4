import { copyStore } from './copy-store.ts'
import type { FoldedUp } from './copy-store.ts'
import { FOLD_VERSION, foldPart } from './part-fold.ts'

export interface FoldJob {
  readonly accountId: string
  readonly gardenId: string
}
/** `null` where this device would not keep it. */
export type FoldAnswer = FoldedUp | null

/** One window folds at a time; what it has folded, the next finds done. */
self.onmessage = async ({ data }: MessageEvent<FoldJob>) => {
  const { accountId, gardenId } = data
  const answer = await navigator.locks
    .request('klados-fold', () => copyStore.foldUp(accountId, gardenId, FOLD_VERSION, foldPart))
    .catch((): FoldAnswer => null)
  self.postMessage(answer)
}
