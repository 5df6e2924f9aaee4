import { API_HEADER } from '@klados/contract/limits'
import { copiedAccount } from './account-key.ts'
import { copyStore } from './copy-store.ts'

/** Before the id of a photo of the journal, of which those lie here that were seen last. */
const SEEN = 'seen '
const MOST_SEEN = 60

/** A photo as it lies on this device; `null` where it does not. */
export async function photoFromCopy(gardenId: string, fileId: string): Promise<Blob | null> {
  const accountId = copiedAccount()
  if (accountId === null) return null
  const of = (id: string) => copyStore.photo(accountId, gardenId, id).catch(() => undefined)
  return (await of(fileId)) ?? (await of(`${SEEN}${fileId}`)) ?? null
}

/** Has a photo of the journal lie on this device, as it was taken or else as the server has it; the oldest make room. */
export async function keepSeen(gardenId: string, fileId: string, taken?: Blob): Promise<void> {
  const accountId = copiedAccount()
  if (accountId === null) return
  const here = await copyStore.photoIds(accountId, gardenId)
  if (here.includes(`${SEEN}${fileId}`) || here.includes(fileId)) return
  const content = taken ?? (await photoOfServer(gardenId, fileId))
  // Signed out meanwhile, nobody wants it here any more.
  if (!content || copiedAccount() !== accountId) return
  await copyStore.keepPhoto(accountId, gardenId, `${SEEN}${fileId}`, content)
  // Their ids are in the order in which they were taken.
  const seen = here.filter((id) => id.startsWith(SEEN)).sort()
  const tooMany = seen.slice(0, Math.max(0, seen.length + 1 - MOST_SEEN))
  if (tooMany.length > 0) await copyStore.dropPhotos(accountId, gardenId, tooMany)
}

async function photoOfServer(gardenId: string, fileId: string): Promise<Blob | null> {
  const reply = await fetch(`/api/gardens/${gardenId}/files/${fileId}`)
  return reply.ok && reply.headers.has(API_HEADER) ? reply.blob() : null
}

/**
 * Has the photos of a garden's places lie on this device, one after the other and without haste, and no others: whoever stands
 * before the wall without a signal wants to see it.
 */
export async function keepPhotos(gardenId: string, fileIds: readonly string[]): Promise<void> {
  const accountId = copiedAccount()
  if (accountId === null) return
  const here = await copyStore.photoIds(accountId, gardenId)
  const wanted = new Set(fileIds)
  const spent = here.filter((id) => !id.startsWith(SEEN) && !wanted.has(id))
  if (spent.length > 0) await copyStore.dropPhotos(accountId, gardenId, spent)
  for (const fileId of wanted) {
    if (here.includes(fileId) || document.visibilityState !== 'visible') continue
    const content = await photoOfServer(gardenId, fileId)
    if (!content) continue
    if (copiedAccount() !== accountId) return
    await copyStore.keepPhoto(accountId, gardenId, fileId, content)
  }
}
